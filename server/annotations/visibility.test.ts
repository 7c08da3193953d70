import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type {
  Annotation,
  ClassDetail,
  Desk,
  AnnotationPage,
  SourcePage,
  SourceDetail,
  SourceText,
} from '@avrelle/core/wire';
import { describe as anchorOf, indexText } from '@avrelle/core/anchor';
import { range } from '@avrelle/core/text';
import { startServer, type Client, type Server } from '../testing/harness';
import { REACH, sees, seesByReach } from '../access/visible-queries';

const TEXT = 'On the marsh\n\nThe zanderling stands at the water and waits for the quiver of the tide to turn.';
const QUOTE = 'zanderling stands';

let server: Server;
const people: Record<string, Client> = {};
const classIds: Record<string, string> = {};
let source: SourceDetail;
let text: SourceText;

/** author: writes. mate: in class A with the author. other: in class B only. teacher: teaches A and B. stranger: in none. */
const VIEWERS = ['author', 'teacher', 'mate', 'other', 'stranger'] as const;
type Viewer = (typeof VIEWERS)[number];

beforeAll(async () => {
  server = await startServer();
  for (const name of VIEWERS) people[name] = await server.person(name);
  for (const letter of ['A', 'B']) {
    const id = (classIds[letter] = v7());
    await people.teacher!.send('PUT', `/api/classes/${id}`, { name: `Field Course ${letter}`, tint: 'tide' });
    const { body } = await people.teacher!.send<ClassDetail>('GET', `/api/classes/${id}`);
    for (const name of letter === 'A' ? ['author', 'mate'] : ['author', 'other'])
      await people[name]!.send('POST', '/api/classes/join', { code: body.code });
  }
  const id = await people.author!.keepText('marsh', TEXT);
  for (const letter of ['A', 'B'])
    await people.author!.send('PUT', `/api/classes/${classIds[letter]}/sources/${id}`, {});
  source = (await people.author!.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
  text = (await people.author!.send<SourceText>('GET', `/api/sources/${id}/text`)).body;
});
afterAll(() => server.close());

async function write(by: Viewer, letters: string, note: string): Promise<string> {
  const id = v7();
  const start = text.text.indexOf(QUOTE);
  const anchor = anchorOf(indexText(text.text), range(start, start + QUOTE.length));
  const answer = await people[by]!.send('PUT', `/api/annotations/${id}`, {
    sourceId: source.id,
    versionId: source.versionId,
    kind: 'claim',
    note,
    tags: ['matrix'],
    anchor,
    classIds: [...letters].map((l) => classIds[l]),
  });
  expect(answer.status).toBe(200);
  return id;
}

/** Every route by which an annotation could reach somebody: true when it does. */
const ROUTES: Readonly<Record<string, (who: Client, id: string, note: string) => Promise<boolean>>> = {
  'by its id': async (who, id) => (await who.send('GET', `/api/annotations/${id}`)).status === 200,
  'in the list of its source': async (who, id) => {
    const answer = await who.send<Annotation[]>('GET', `/api/sources/${source.id}/annotations`);
    return answer.status === 200 && answer.body.some((a) => a.id === id);
  },
  'found by its note': async (who, id, note) =>
    (await who.send<AnnotationPage>('GET', `/api/annotations?q=${note}`)).body.annotations.some((h) => h.id === id),
  'found by its quotation': async (who, id) =>
    (await who.send<AnnotationPage>('GET', '/api/annotations?q=zanderling')).body.annotations.some((h) => h.id === id),
  'found by its tag': async (who, id) =>
    (await who.send<AnnotationPage>('GET', '/api/annotations?q=%23matrix')).body.annotations.some((h) => h.id === id),
  'in the study notes': async (who, _id, note) =>
    (await who.send('GET', `/api/sources/${source.id}/study-notes.md?whose=all`)).text.includes(note),
  'in the W3C export': async (who, id) =>
    (await who.send('GET', `/api/sources/${source.id}/annotations.jsonld?whose=all`)).text.includes(id),
};

describe.each([
  ['', ['author']],
  ['A', ['author', 'teacher', 'mate']],
  ['B', ['author', 'teacher', 'other']],
  ['AB', ['author', 'teacher', 'mate', 'other']],
] as const)('an annotation for classes "%s"', (letters, allowed) => {
  let id: string;
  const note = `quokkaword${letters || 'none'}`;
  beforeAll(async () => {
    id = await write('author', letters, note);
  });

  test.each(Object.keys(ROUTES))('reaches exactly those it is for %s', async (route) => {
    const reached: string[] = [];
    for (const name of VIEWERS) if (await ROUTES[route]!(people[name]!, id, note)) reached.push(name);
    expect(reached.sort()).toEqual([...allowed].sort());
    expect(await ROUTES[route]!(server.nobody, id, note).catch(() => false)).toBe(false);
  });

  test('can be changed by its author alone', async () => {
    for (const name of VIEWERS.filter((v) => v !== 'author')) {
      const answer = await people[name]!.send('PATCH', `/api/annotations/${id}`, { version: 1, note: 'defaced' });
      expect([name, answer.status]).toEqual([name, (allowed as readonly string[]).includes(name) ? 403 : 404]);
    }
    expect((await server.nobody.send('PATCH', `/api/annotations/${id}`, { version: 1, note: 'defaced' })).status).toBe(
      401,
    );
  });

  test('can be answered only by those who see it', async () => {
    for (const name of VIEWERS.filter((v) => v !== 'author')) {
      const answer = await people[name]!.send('PUT', `/api/replies/${v7()}`, { parentId: id, note: 'reply' });
      expect([name, answer.status]).toEqual([name, (allowed as readonly string[]).includes(name) ? 200 : 404]);
    }
  });
});

test('an answer in one class is not seen in another, though the annotation is in both', async () => {
  const id = await write('author', 'AB', 'in both');
  const reply = v7();
  await people.mate!.send('PUT', `/api/replies/${reply}`, { parentId: id, note: 'only for A' });
  const seen: string[] = [];
  for (const name of VIEWERS)
    if ((await people[name]!.send('GET', `/api/annotations/${reply}`)).status === 200) seen.push(name);
  expect(seen.sort()).toEqual(['author', 'mate', 'teacher']);
});

test('only who may read a source reaches it by any route', async () => {
  const reads = async (who: Client) => [
    (await who.send('GET', `/api/sources/${source.id}`)).status,
    (await who.send('GET', `/api/sources/${source.id}/text`)).status,
    (await who.send('GET', `/snapshots/${source.versionId}/`)).status,
    (await who.send('GET', `/api/sources/${source.id}/study-notes.md`)).status,
    (await who.send<SourcePage>('GET', '/api/sources')).body?.sources?.length ?? 0,
    (await who.send<SourcePage>('GET', '/api/sources?q=quiver')).body?.sources?.length ?? 0,
  ];
  expect(await reads(people.mate!)).toEqual([200, 200, 200, 200, 1, 1]);
  expect(await reads(people.stranger!)).toEqual([404, 404, 404, 404, 0, 0]);
  expect((await reads(server.nobody)).slice(0, 4)).toEqual([401, 401, 401, 401]);
});

test('the audience changes without a copy, and whoever loses it is told', async () => {
  const id = await write('author', 'A', 'wandering');
  const told: string[] = [];
  const stop = server.context.events.subscribe({
    hear: (events) => told.push(...events.filter((e) => e.annotationId === id).map((e) => e.formerClasses ?? 'new')),
    restart: () => undefined,
  });
  const { body } = await people.author!.send<Annotation>('PATCH', `/api/annotations/${id}`, {
    version: 1,
    classIds: [classIds.B],
  });
  expect([body.id, body.version, body.classIds]).toEqual([id, 2, [classIds.B]]);
  expect((await people.mate!.send('GET', `/api/annotations/${id}`)).status).toBe(404);
  expect((await people.other!.send('GET', `/api/annotations/${id}`)).status).toBe(200);
  await new Promise((next) => setImmediate(() => setImmediate(next)));
  stop();
  expect(told).toContain(JSON.stringify([{ classId: classIds.A, teachers: false }]));
});

test('a class is told the classes it shares, not the others', async () => {
  const id = await write('author', 'AB', 'two classes');
  expect((await people.mate!.send<Annotation>('GET', `/api/annotations/${id}`)).body.classIds).toEqual([classIds.A]);
  expect((await people.author!.send<Annotation>('GET', `/api/annotations/${id}`)).body.classIds).toHaveLength(2);
});

test('an answer is told to whom it answers, on the desk, and to nobody else', async () => {
  const id = await write('author', 'A', 'answer me');
  await people.mate!.send('PUT', `/api/replies/${v7()}`, { parentId: id, note: 'a particular answer' });
  const notices = async (name: Viewer) =>
    (await people[name]!.send<Desk>('GET', '/api/desk')).body.notices.filter((n) => n.reply === 'a particular answer')
      .length;
  expect([await notices('author'), await notices('mate'), await notices('teacher'), await notices('other')]).toEqual([
    1, 0, 0, 0,
  ]);
});

describe('what is deleted after it was answered', () => {
  const seenBy = async (id: string): Promise<[string, Partial<Annotation>][]> => {
    const seen: [string, Partial<Annotation>][] = [];
    for (const name of VIEWERS) {
      const { status, body } = await people[name]!.send<Annotation>('GET', `/api/annotations/${id}`);
      if (status === 200) seen.push([name, body]);
    }
    return seen;
  };
  const reply = async (by: Viewer, parentId: string): Promise<string> => {
    const id = v7();
    expect(
      (await people[by]!.send('PUT', `/api/replies/${id}`, { parentId, note: 'an answer that stays' })).status,
    ).toBe(200);
    return id;
  };
  const remove = (by: Viewer, id: string, version: number, deleted = true) =>
    people[by]!.send<Annotation>('PATCH', `/api/annotations/${id}`, { version, deleted });

  test('leaves that it was there, without its words, to those who see an answer, and comes back whole', async () => {
    const id = await write('author', 'AB', 'zyzzyva');
    const answer = await reply('mate', id);
    await remove('author', id, 1);
    const seen = await seenBy(id);
    expect(seen.map(([name]) => name)).toEqual(['author', 'teacher', 'mate']);
    for (const [, trace] of seen) expect(trace).toMatchObject({ deleted: true, note: '', tags: [] });
    expect((await seenBy(answer)).map(([name]) => name)).toEqual(['author', 'teacher', 'mate']);
    for (const route of ['found by its note', 'found by its quotation', 'found by its tag', 'in the study notes'])
      for (const name of VIEWERS)
        expect([route, name, await ROUTES[route]!(people[name]!, id, 'zyzzyva')]).toEqual([route, name, false]);
    await remove('author', id, 2, false);
    expect((await seenBy(id)).map(([name, a]) => [name, a.note])).toEqual([
      ['author', 'zyzzyva'],
      ['teacher', 'zyzzyva'],
      ['mate', 'zyzzyva'],
      ['other', 'zyzzyva'],
    ]);
  });

  test('is gone where nobody answered, or once the answers are gone too', async () => {
    const id = await write('author', 'A', 'lonely');
    await remove('author', id, 1);
    expect(await seenBy(id)).toEqual([]);
    const other = await write('author', 'A', 'answered');
    const first = await reply('mate', other);
    const second = await reply('teacher', first);
    await remove('mate', first, 1);
    expect((await seenBy(first)).map(([name, a]) => [name, a.note])).toEqual([
      ['author', ''],
      ['teacher', ''],
      ['mate', ''],
    ]);
    await remove('author', other, 1);
    await remove('teacher', second, 1);
    expect([...(await seenBy(other)), ...(await seenBy(first))]).toEqual([]);
  });
});

test('several are changed in one step, or none of them', async () => {
  const [a, b, theirs] = [
    await write('author', '', 'one'),
    await write('author', 'A', 'two'),
    await write('mate', 'A', 'three'),
  ];
  const change = (changes: object[]) =>
    people.author!.send<Annotation[]>('POST', '/api/annotations/changes', { changes });
  const done = await change([
    { id: a, version: 1, kind: 'doubt', tags: ['both'] },
    { id: b, version: 1, classIds: [classIds.B] },
  ]);
  expect(done.body.map((x) => [x.kind.name, x.tags, x.classIds])).toEqual([
    ['Doubt', ['both'], []],
    ['Claim', ['matrix'], [classIds.B]],
  ]);
  expect(
    (
      await change([
        { id: a, version: 2, note: 'new' },
        { id: theirs, version: 1, note: 'defaced' },
      ])
    ).status,
  ).toBe(403);
  expect(
    (
      await change([
        { id: a, version: 2, note: 'new' },
        { id: b, version: 1, note: 'late' },
      ])
    ).status,
  ).toBe(409);
  expect((await people.author!.send<Annotation>('GET', `/api/annotations/${a}`)).body).toMatchObject({
    note: 'one',
    version: 2,
  });
});

test('a passage grows: its words, its place and what is found by its words change with it', async () => {
  const id = await write('author', '', '');
  const index = indexText(text.text);
  const start = text.text.indexOf('stands at the water');
  const anchor = anchorOf(index, range(start, start + 19));
  const { body } = await people.author!.send<Annotation>('PATCH', `/api/annotations/${id}`, {
    version: 1,
    passage: { versionId: source.versionId, anchor },
  });
  expect([body.anchor?.quote.exact, body.place?.start, body.version]).toEqual(['stands at the water', start, 2]);
  expect(
    (
      await people.author!.send<AnnotationPage>('GET', '/api/annotations?q=%22stands%20at%20the%20water%22')
    ).body.annotations.map((h) => h.id),
  ).toContain(id);
  const wrong = await people.author!.send('PATCH', `/api/annotations/${id}`, {
    version: 2,
    passage: { versionId: source.versionId, anchor: { ...anchor, position: { start: 0, end: 19 } } },
  });
  expect(wrong.status).toBe(400);
});

test('leaving a class by taking its source out hides what was written for it', async () => {
  const id = await people.author!.keepText('second', 'A second text about the tide.');
  await people.author!.send('PUT', `/api/classes/${classIds.A}/sources/${id}`, {});
  expect((await people.mate!.send('GET', `/api/sources/${id}`)).status).toBe(200);
  expect((await people.mate!.send('DELETE', `/api/classes/${classIds.A}/sources/${id}`)).status).toBe(403);
  expect((await people.author!.send('DELETE', `/api/classes/${classIds.A}/sources/${id}`)).status).toBe(204);
  expect((await people.mate!.send('GET', `/api/sources/${id}`)).status).toBe(404);
});

test('an answer one does not see answers nothing', async () => {
  const id = await write('author', 'AB', 'answered in A');
  const answered = async (name: Viewer) =>
    (await people[name]!.send<AnnotationPage>('GET', '/api/annotations?q=has:answer')).body.annotations.some(
      (a) => a.id === id,
    );
  await people.mate!.send('PUT', `/api/replies/${v7()}`, { parentId: id, note: 'for A' });
  expect([await answered('mate'), await answered('author'), await answered('other')]).toEqual([true, true, false]);
});

test('thousands are gone over by the same rule as one: of all that was written here, everybody sees the same both ways', () => {
  const { db } = server.context;
  const all = (sql: string, me: string): number[] => db.all<{ seq: number }>(sql, { me } as never).map((r) => r.seq);
  let seen = 0;
  for (const { id } of db.all<{ id: string }>('SELECT id FROM person')) {
    const readable = 'x.source_id IN (SELECT source_id FROM source_visible WHERE person_id = @me)';
    const one = all(`SELECT seq FROM annotation x WHERE ${readable} AND ${sees('x')} ORDER BY seq`, id);
    expect(
      all(
        `WITH reach AS MATERIALIZED (${REACH}) SELECT seq FROM annotation x WHERE ${readable} AND ${seesByReach('x', 'reach')} ORDER BY seq`,
        id,
      ),
    ).toEqual(one);
    seen += one.length;
  }
  expect(seen).toBeGreaterThan(20);
});

test('who may read a source no longer changes no words that others read, and learns nothing of its text', async () => {
  const id = await people.author!.keepText('left', 'The old weir stands below the mill.');
  const { versionId } = (await people.author!.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
  await people.author!.send('PUT', `/api/classes/${classIds.A}/sources/${id}`, {});
  const note = v7();
  const anchor = { quote: { exact: 'weir', prefix: 'old ', suffix: ' stands' }, position: { start: 8, end: 12 } };
  expect(
    (
      await people.mate!.send('PUT', `/api/annotations/${note}`, {
        sourceId: id,
        versionId,
        kind: 'claim',
        note: 'as it was',
        tags: [],
        anchor,
        classIds: [classIds.A],
      })
    ).status,
  ).toBe(200);
  await people.author!.send('DELETE', `/api/classes/${classIds.A}/sources/${id}`);
  const patch = async (fields: object) =>
    (await people.mate!.send('PATCH', `/api/annotations/${note}`, { version: 1, ...fields })).status;
  expect([
    await patch({ note: 'changed' }),
    await patch({ tags: ['x'] }),
    await patch({ classIds: [classIds.A] }),
  ]).toEqual([404, 404, 404]);
  // A guess that is right and one that is wrong are answered alike.
  const guess = (exact: string, start: number) =>
    patch({
      passage: {
        versionId,
        anchor: { quote: { exact, prefix: '', suffix: '' }, position: { start, end: start + exact.length } },
      },
    });
  expect([await guess('mill', 30), await guess('moon', 30)]).toEqual([404, 404]);
  expect(
    (await people.mate!.send('PUT', `/api/annotations/${note}/place`, { versionId, start: 0, end: 3 })).status,
  ).toBe(404);
  expect(await patch({ deleted: true })).toBe(200);
});
