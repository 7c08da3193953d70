import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type {
  CollectionDetail,
  DeletedSource,
  Problem,
  SourceChangesMade,
  SourceDetail,
  SourcePage,
} from '@avrelle/core/wire';
import type { Client } from '../testing/harness';
import { sharedTexts, type SharedTexts } from '../testing/shared-texts';
import { removeExpired } from './remove-expired';

let server: SharedTexts['server'];
let teacher: Client;
let student: Client;
let stranger: Client;
let classId: string;
let ids: SharedTexts['ids'];
let outline: SharedTexts['outline'];
beforeAll(async () => {
  ({ server, teacher, student, stranger, classId, ids, outline } = await sharedTexts());
});
afterAll(() => server.close());

test('searches are kept with their counts, ordered, shared with a class, and refused when they cannot be read', async () => {
  const [short, unread] = [v7(), v7()];
  for (const [id, name, query, shared] of [
    [short, 'Short', 'minutes<10', classId],
    [unread, 'Unread', 'is:to-read -title:own', null],
  ] as const)
    expect((await teacher.send('PUT', `/api/searches/${id}`, { name, query, classId: shared })).status).toBe(204);
  expect((await outline()).searches.map((s) => [s.name, s.count])).toEqual([
    ['Short', 4],
    ['Unread', 3],
  ]);
  await teacher.send('PUT', '/api/searches', { ids: [unread, short] });
  expect((await outline()).searches.map((s) => s.name)).toEqual(['Unread', 'Short']);
  expect((await outline(student)).searches).toMatchObject([
    { name: 'Short', count: 3, owned: false, ownerName: 'Teacher' },
  ]);
  expect(
    (await teacher.send<Problem>('PUT', `/api/searches/${v7()}`, { name: 'Wrong', query: '(mud' })).body.code,
  ).toBe('query');
  expect([
    (await student.send('DELETE', `/api/searches/${short}`)).status,
    (await stranger.send('DELETE', `/api/searches/${short}`)).status,
    (await teacher.send('DELETE', `/api/searches/${short}`)).status,
  ]).toEqual([403, 404, 204]);
});

test('somebody new has searches to begin with, and all of them can be read', async () => {
  const fresh = await server.person('Beginner');
  const { searches } = await outline(fresh);
  expect(searches.map((s) => s.name)).toEqual([
    'Begun, not finished',
    'Under ten minutes',
    'Without a tag',
    'Came this week',
    'Due this week',
  ]);
  await fresh.keepText('first', 'The first one.');
  expect((await outline(fresh)).searches.map((s) => s.count)).toEqual([0, 1, 1, 1, 0]);
});

describe('many at once', () => {
  const send = (who: Client, changes: readonly object[]) =>
    who.send<SourceChangesMade>('POST', '/api/sources/changes', { changes });
  const tagsOf = async (id: string) =>
    (await teacher.send<SourceDetail>('GET', `/api/sources/${id}`)).body.tags.toSorted();

  test('what one may not do ends all, what is not there is named and passed over', async () => {
    expect(
      (
        await send(teacher, [
          { id: ids[0], state: 'finished', addTags: ['essay'] },
          { id: ids[1], state: 'finished', addTags: ['essay', 'mud'] },
        ])
      ).status,
    ).toBe(200);
    const { states, tags } = await outline();
    expect([states.finished, tags]).toEqual([
      2,
      [
        { tag: 'essay', count: 2 },
        { tag: 'mud', count: 1 },
      ],
    ]);
    expect(
      (
        await send(student, [
          { id: ids[0], state: 'reading' },
          { id: ids[0], deleted: true },
        ])
      ).status,
    ).toBe(403);
    expect((await outline(student)).states.reading).toBe(0);
    expect(
      (
        await send(student, [
          { id: ids[0], state: 'reading' },
          { id: ids[3], state: 'reading' },
        ])
      ).body,
    ).toEqual({ undo: [{ id: ids[0], state: 'to_read', ifState: 'reading' }], missing: [ids[3]] });
    expect((await send(student, [{ id: ids[3], state: 'reading' }])).status).toBe(404);
    await send(student, [{ id: ids[0], state: 'to_read' }]);
  });

  test('taking a change back takes back what it changed, and nothing that was there before or came meanwhile', async () => {
    const [first, second] = [ids[0]!, ids[1]!];
    const { body } = await send(teacher, [
      { id: first, state: 'reading', addTags: ['essay', 'late'], takeTags: ['mud'] },
      { id: second, state: 'finished', addTags: ['late'], takeTags: ['mud'] },
    ]);
    await teacher.send('PUT', `/api/sources/${first}/tags`, { tags: ['essay', 'late', 'meanwhile'] });
    await send(teacher, [{ id: first, state: 'set_aside' }]);
    expect((await send(teacher, body.undo)).status).toBe(200);
    expect([await tagsOf(first), await tagsOf(second)]).toEqual([
      ['essay', 'meanwhile'],
      ['essay', 'mud'],
    ]);
    expect((await teacher.send<SourceDetail>('GET', `/api/sources/${first}`)).body.state).toBe('set_aside');
    await send(teacher, [{ id: first, state: 'finished', takeTags: ['meanwhile'] }]);
  });

  test('sharing with a class and putting into a collection are taken back only where they were new', async () => {
    const [first, second, last] = [ids[0]!, ids[1]!, ids[3]!];
    const collection = v7();
    const classesOf = async (id: string) =>
      (await teacher.send<SourceDetail>('GET', `/api/sources/${id}`)).body.classes.length;
    const inIt = async () =>
      (await teacher.send<CollectionDetail>('GET', `/api/collections/${collection}`)).body.items.map((i) => [
        i.source.id,
        i.section,
      ]);
    expect([await classesOf(first), await classesOf(last)]).toEqual([1, 0]);
    const { body: shared } = await send(
      teacher,
      [first, last].map((id) => ({ id, shareWith: classId })),
    );
    expect(shared.undo).toEqual([{ id: last, unshareFrom: classId }]);
    await send(teacher, shared.undo);
    expect([await classesOf(first), await classesOf(last)]).toEqual([1, 0]);
    const made = (await teacher.send<CollectionDetail>('PUT', `/api/collections/${collection}`, { name: 'In order' }))
      .body;
    await send(
      teacher,
      [first, second, last].map((id) => ({ id, putInto: { collectionId: collection } })),
    );
    const { version } = (await teacher.send<CollectionDetail>('GET', `/api/collections/${collection}`)).body;
    expect(version).toBeGreaterThan(made.version);
    await teacher.send('PUT', `/api/collections/${collection}/order`, {
      version,
      sections: ['Early'],
      items: [first, second, last].map((sourceId) => ({ sourceId, section: 0 })),
    });
    const before = await inIt();
    const taken = (await send(teacher, [{ id: second, takeFrom: collection }])).body;
    expect(await inIt()).toHaveLength(2);
    await send(teacher, taken.undo);
    expect(await inIt()).toEqual(before);
    expect((await send(teacher, [{ id: second, putInto: { collectionId: collection } }])).body.undo).toEqual([]);
    expect((await send(student, [{ id: first, putInto: { collectionId: collection } }])).status).toBe(404);
    await teacher.send('DELETE', `/api/collections/${collection}`);
  });

  test('what is deleted can be brought back for thirty days, and is gone for good after them', async () => {
    const gone = await teacher.keepText('to go', 'Gone with its files.');
    const files = server.context.db.get<{ n: number }>('SELECT count(*) AS n FROM blob')!.n;
    const { undo } = (await send(teacher, [{ id: gone, deleted: true }])).body;
    expect(undo).toEqual([{ id: gone, deleted: false }]);
    await send(teacher, undo);
    expect((await outline()).deleted).toBe(0);
    await send(teacher, [{ id: gone, deleted: true }]);
    expect([
      (await outline()).deleted,
      (await teacher.send<DeletedSource[]>('GET', '/api/sources/deleted')).body[0],
    ]).toEqual([1, expect.objectContaining({ id: gone, title: 'To go' })]);
    const later = (days: number) => ({
      ...server.context,
      now: () => new Date(Date.now() + days * 86_400_000).toISOString(),
    });
    expect([
      removeExpired(later(29)).sources,
      removeExpired(later(31)).sources,
      removeExpired(later(31)).sources,
    ]).toEqual([0, 1, 0]);
    expect((await teacher.send('POST', `/api/sources/${gone}/restore`, {})).status).toBe(404);
    expect(server.context.db.get<{ n: number }>('SELECT count(*) AS n FROM blob')!.n).toBeLessThan(files);
    expect((await teacher.send<SourcePage>('GET', '/api/sources?q=files')).body.total).toBe(0);
  });
});
