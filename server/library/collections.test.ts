import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { CollectionDetail, Problem, SourcePage } from '@avrelle/core/wire';
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

const make = async (who: Client, name: string, more: object = {}): Promise<CollectionDetail> => {
  const { status, body } = await who.send<CollectionDetail>('PUT', `/api/collections/${v7()}`, { name, ...more });
  expect([status, name]).toEqual([200, name]);
  return body;
};
const order = (c: CollectionDetail) => c.items.map((i) => [i.source.title.toLowerCase(), i.section]);

describe('collections', () => {
  test('hold sources in sections, in an order of one’s own, and are found by in:', async () => {
    const made = await make(teacher, 'Essay: retreat');
    const added = (
      await teacher.send<CollectionDetail>('POST', `/api/collections/${made.id}/sources`, {
        sourceIds: [ids[0], ids[1], ids[3]],
      })
    ).body;
    expect(order(added)).toEqual([
      ['one', -1],
      ['two', -1],
      ['own', -1],
    ]);
    const put = (
      await teacher.send<CollectionDetail>('PUT', `/api/collections/${made.id}/order`, {
        version: added.version,
        sections: ['Opening', 'Data'],
        items: [
          { sourceId: ids[3], section: 0 },
          { sourceId: ids[0], section: 1 },
          { sourceId: ids[1], section: 1 },
        ],
      })
    ).body;
    expect([order(put), put.sections]).toEqual([
      [
        ['own', 0],
        ['one', 1],
        ['two', 1],
      ],
      ['Opening', 'Data'],
    ]);
    expect((await teacher.send<SourcePage>('GET', '/api/sources?q=in:%22essay: retreat%22')).body.total).toBe(3);
    expect((await outline()).collections).toMatchObject([{ name: 'Essay: retreat', count: 3, owned: true }]);
    const less = (
      await teacher.send<CollectionDetail>('DELETE', `/api/collections/${made.id}/sources`, { sourceIds: [ids[0]] })
    ).body;
    expect(order(less)).toEqual([
      ['own', 0],
      ['two', 1],
    ]);
  });

  test('two people who order one at once: the later one is shown what stands', async () => {
    const made = await make(teacher, 'Shared', { classId, may: 'add' });
    const { body } = await student.send<CollectionDetail>('POST', `/api/collections/${made.id}/sources`, {
      sourceIds: [ids[0], ids[1]],
    });
    const items = [1, 0].map((n) => ({ sourceId: ids[n], section: -1 }));
    const put = (who: Client) =>
      who.send<Problem & CollectionDetail>('PUT', `/api/collections/${made.id}/order`, {
        version: body.version,
        sections: [],
        items,
      });
    const [first, second] = [
      await teacher.send<CollectionDetail>('PUT', `/api/collections/${made.id}/order`, {
        version: body.version,
        sections: [],
        items,
      }),
      await put(student),
    ];
    expect([first.status, second.status, second.body.code]).toEqual([200, 409, 'stale']);
    expect(order(second.body.current as CollectionDetail)).toEqual([
      ['two', -1],
      ['one', -1],
    ]);
  });

  test('whoever removes or moves sections takes along what they may not see in them', async () => {
    const made = await make(teacher, 'In sections', { classId, may: 'add' });
    const at = `/api/collections/${made.id}`;
    const { version } = (await teacher.send<CollectionDetail>('POST', `${at}/sources`, { sourceIds: [ids[0], ids[3]] }))
      .body;
    const two = [
      { sourceId: ids[0], section: 0 },
      { sourceId: ids[3], section: 1 },
    ];
    const put = (
      await teacher.send<CollectionDetail>('PUT', `${at}/order`, { version, sections: ['Alpha', 'Beta'], items: two })
    ).body;
    const mine = [{ sourceId: ids[0], section: 1 }];
    const turned = (
      await student.send<CollectionDetail>('PUT', `${at}/order`, {
        version: put.version,
        sections: ['Beta', 'Alpha'],
        was: [1, 0],
        items: mine,
      })
    ).body;
    expect(order((await teacher.send<CollectionDetail>('GET', at)).body)).toEqual([
      ['own', 0],
      ['one', 1],
    ]);
    await student.send('PUT', `${at}/order`, {
      version: turned.version,
      sections: ['Alpha'],
      was: [1],
      items: [{ sourceId: ids[0], section: 0 }],
    });
    expect(order((await teacher.send<CollectionDetail>('GET', at)).body)).toEqual([
      ['own', -1],
      ['one', 0],
    ]);
  });

  test('what stands in one that is deleted stays, one level up', async () => {
    const outer = await make(teacher, 'Outer one');
    const inner = await make(teacher, 'Inner one', { parentId: outer.id });
    expect((await teacher.send('DELETE', `/api/collections/${outer.id}`)).status).toBe(204);
    expect((await outline()).collections.find((c) => c.id === inner.id)).toMatchObject({
      name: 'Inner one',
      parentId: null,
    });
  });

  test('what was deleted comes back as it was, for its owner and for thirty days', async () => {
    const outer = await make(teacher, 'Gone', { classId, may: 'add' });
    const inner = await make(teacher, 'Within', { parentId: outer.id });
    await teacher.send('POST', `/api/collections/${outer.id}/sources`, { sourceIds: [ids[0], ids[1]] });
    await teacher.send('DELETE', `/api/collections/${outer.id}`);
    const gone = await Promise.all([teacher, student].map((who) => who.send('GET', `/api/collections/${outer.id}`)));
    expect(gone.map((g) => g.status)).toEqual([404, 404]);
    expect((await student.send('POST', `/api/collections/${outer.id}/sources`, { sourceIds: [ids[2]] })).status).toBe(
      404,
    );
    expect((await teacher.send<SourcePage>('GET', '/api/sources?q=in:gone')).body.total).toBe(0);
    expect((await student.send('POST', `/api/collections/${outer.id}/restore`, {})).status).toBe(404);
    const back = (await teacher.send<CollectionDetail>('POST', `/api/collections/${outer.id}/restore`, {})).body;
    expect([
      back.name,
      order(back),
      (await teacher.send<CollectionDetail>('GET', `/api/collections/${inner.id}`)).body.parentId,
    ]).toEqual([
      'Gone',
      [
        ['one', -1],
        ['two', -1],
      ],
      outer.id,
    ]);
    expect((await student.send('GET', `/api/collections/${outer.id}`)).status).toBe(200);
    // What stood in it and came to hold others meanwhile stands alone.
    await teacher.send('DELETE', `/api/collections/${outer.id}`);
    await make(teacher, 'Deepest', { parentId: inner.id });
    await teacher.send('POST', `/api/collections/${outer.id}/restore`, {});
    expect((await teacher.send<CollectionDetail>('GET', `/api/collections/${inner.id}`)).body.parentId).toBeNull();
    await teacher.send('DELETE', `/api/collections/${outer.id}`);
    removeExpired({ ...server.context, now: () => new Date(Date.now() + 31 * 86_400_000).toISOString() });
    expect((await teacher.send('POST', `/api/collections/${outer.id}/restore`, {})).status).toBe(404);
  });

  test('shared to be read they are; nobody outside sees them, and nobody sees sources that are not theirs', async () => {
    const made = await make(teacher, 'To read', { classId });
    await teacher.send('POST', `/api/collections/${made.id}/sources`, { sourceIds: [ids[2], ids[3]] });
    const seen = (await student.send<CollectionDetail>('GET', `/api/collections/${made.id}`)).body;
    expect([order(seen), seen.hidden, seen.owned]).toEqual([[['three', -1]], 1, false]);
    expect((await student.send('POST', `/api/collections/${made.id}/sources`, { sourceIds: [ids[0]] })).status).toBe(
      403,
    );
    expect((await student.send('DELETE', `/api/collections/${made.id}`)).status).toBe(403);
    expect((await stranger.send('GET', `/api/collections/${made.id}`)).status).toBe(404);
    expect((await outline(stranger)).collections).toEqual([]);
    expect((await stranger.send('PUT', `/api/collections/${v7()}`, { name: 'x', classId })).status).toBe(403);
  });

  test('stand in another, one level deep', async () => {
    const outer = await make(teacher, 'Outer');
    const inner = await make(teacher, 'Inner', { parentId: outer.id });
    expect(inner.parentId).toBe(outer.id);
    expect(
      (await teacher.send<Problem>('PUT', `/api/collections/${v7()}`, { name: 'Deeper', parentId: inner.id })).body
        .detail,
    ).toMatch(/no deeper/);
    expect(
      (
        await teacher.send<Problem>('PUT', `/api/collections/${outer.id}`, {
          version: outer.version,
          name: 'Outer',
          parentId: outer.id,
        })
      ).status,
    ).toBe(400);
    await teacher.send('POST', `/api/collections/${inner.id}/sources`, { sourceIds: [ids[0]] });
    expect((await teacher.send<SourcePage>('GET', '/api/sources?q=in:outer')).body.total).toBe(1);
  });

  test('a class that sees the outer one is not told what stands in a private one within it', async () => {
    const outer = await make(teacher, 'Seen', { classId });
    const inner = await make(teacher, 'Unseen', { parentId: outer.id });
    await teacher.send('POST', `/api/collections/${outer.id}/sources`, { sourceIds: [ids[1]] });
    await teacher.send('POST', `/api/collections/${inner.id}/sources`, { sourceIds: [ids[0]] });
    const found = async (who: Client) =>
      (await who.send<SourcePage>('GET', '/api/sources?q=in:seen')).body.sources.map((s) => s.id).toSorted();
    expect([await found(teacher), await found(student)]).toEqual([[ids[0], ids[1]].toSorted(), [ids[1]]]);
  });
});

test('a source tells which collections hold it, of those one sees', async () => {
  const mine = await make(teacher, 'Holds it');
  const holding = async (who: Client) => (await who.send<string[]>('GET', `/api/sources/${ids[2]}/collections`)).body;
  await teacher.send('POST', `/api/collections/${mine.id}/sources`, { sourceIds: [ids[2]] });
  expect([
    (await holding(teacher)).includes(mine.id),
    (await holding(student)).includes(mine.id),
    (await stranger.send('GET', `/api/sources/${ids[2]}/collections`)).status,
  ]).toEqual([true, false, 404]);
});
