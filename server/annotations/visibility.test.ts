import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Annotation, ClassDetail, Desk, FindResult, Library, SourceDetail, SourceText } from '@avrelle/core/wire';
import { describe as anchorOf, indexText } from '@avrelle/core/anchor';
import { range } from '@avrelle/core/text';
import { startServer, type Client, type Server } from '../testing/harness';

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
    for (const name of letter === 'A' ? ['author', 'mate'] : ['author', 'other']) await people[name]!.send('POST', '/api/classes/join', { code: body.code });
  }
  const id = await people.author!.keepText('marsh', TEXT);
  for (const letter of ['A', 'B']) await people.author!.send('PUT', `/api/classes/${classIds[letter]}/sources/${id}`, {});
  source = (await people.author!.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
  text = (await people.author!.send<SourceText>('GET', `/api/sources/${id}/text`)).body;
});
afterAll(() => server.close());

async function write(by: Viewer, letters: string, note: string): Promise<string> {
  const id = v7(), start = text.text.indexOf(QUOTE);
  const anchor = anchorOf(indexText(text.text), range(start, start + QUOTE.length));
  const answer = await people[by]!.send('PUT', `/api/annotations/${id}`, { sourceId: source.id, versionId: source.versionId, kind: 'claim', note, tags: ['matrix'], anchor, classIds: [...letters].map((l) => classIds[l]) });
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
  'found by its note': async (who, id, note) => (await who.send<FindResult>('GET', `/api/find?q=${note}`)).body.annotations.some((h) => h.annotationId === id),
  'found by its quotation': async (who, id) => (await who.send<FindResult>('GET', '/api/find?q=zanderling')).body.annotations.some((h) => h.annotationId === id),
  'found by its tag': async (who, id) => (await who.send<FindResult>('GET', '/api/find?q=%23matrix')).body.annotations.some((h) => h.annotationId === id),
  'in the study notes': async (who, _id, note) => (await who.send('GET', `/api/sources/${source.id}/study-notes.md?whose=all`)).text.includes(note),
  'in the W3C export': async (who, id) => (await who.send('GET', `/api/sources/${source.id}/annotations.jsonld?whose=all`)).text.includes(id),
};

describe.each([
  ['', ['author']],
  ['A', ['author', 'teacher', 'mate']],
  ['B', ['author', 'teacher', 'other']],
  ['AB', ['author', 'teacher', 'mate', 'other']],
] as const)('an annotation for classes "%s"', (letters, allowed) => {
  let id: string;
  const note = `quokkaword${letters || 'none'}`;
  beforeAll(async () => { id = await write('author', letters, note); });

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
    expect((await server.nobody.send('PATCH', `/api/annotations/${id}`, { version: 1, note: 'defaced' })).status).toBe(401);
  });

  test('can be answered only by those who see it', async () => {
    for (const name of VIEWERS.filter((v) => v !== 'author')) {
      const answer = await people[name]!.send('PUT', `/api/replies/${v7()}`, { parentId: id, note: 'reply' });
      expect([name, answer.status]).toEqual([name, (allowed as readonly string[]).includes(name) ? 200 : 404]);
    }
  });
});

test('an answer in one class is not seen in another, though the annotation is in both', async () => {
  const id = await write('author', 'AB', 'in both'), reply = v7();
  await people.mate!.send('PUT', `/api/replies/${reply}`, { parentId: id, note: 'only for A' });
  const seen: string[] = [];
  for (const name of VIEWERS) if ((await people[name]!.send('GET', `/api/annotations/${reply}`)).status === 200) seen.push(name);
  expect(seen.sort()).toEqual(['author', 'mate', 'teacher']);
});

test('only who may read a source reaches it by any route', async () => {
  const reads = async (who: Client) => [
    (await who.send('GET', `/api/sources/${source.id}`)).status, (await who.send('GET', `/api/sources/${source.id}/text`)).status,
    (await who.send('GET', `/snapshots/${source.versionId}/`)).status, (await who.send('GET', `/api/sources/${source.id}/study-notes.md`)).status,
    (await who.send<Library>('GET', '/api/sources')).body?.sources?.length ?? 0, (await who.send<FindResult>('GET', '/api/find?q=quiver')).body?.passages?.length ?? 0,
  ];
  expect(await reads(people.mate!)).toEqual([200, 200, 200, 200, 1, 1]);
  expect(await reads(people.stranger!)).toEqual([404, 404, 404, 404, 0, 0]);
  expect((await reads(server.nobody)).slice(0, 4)).toEqual([401, 401, 401, 401]);
});

test('the audience changes without a copy, and whoever loses it is told', async () => {
  const id = await write('author', 'A', 'wandering');
  const told: string[] = [];
  const stop = server.context.events.subscribe((events) => told.push(...events.filter((e) => e.annotation_id === id).map((e) => e.former_classes ?? 'new')));
  const { body } = await people.author!.send<Annotation>('PATCH', `/api/annotations/${id}`, { version: 1, classIds: [classIds.B] });
  expect([body.id, body.version, body.classIds]).toEqual([id, 2, [classIds.B]]);
  expect((await people.mate!.send('GET', `/api/annotations/${id}`)).status).toBe(404);
  expect((await people.other!.send('GET', `/api/annotations/${id}`)).status).toBe(200);
  await new Promise((next) => setImmediate(() => setImmediate(next)));
  stop();
  expect(told).toContain(JSON.stringify([classIds.A]));
});

test('a class is told the classes it shares, not the others', async () => {
  const id = await write('author', 'AB', 'two classes');
  expect((await people.mate!.send<Annotation>('GET', `/api/annotations/${id}`)).body.classIds).toEqual([classIds.A]);
  expect((await people.author!.send<Annotation>('GET', `/api/annotations/${id}`)).body.classIds).toHaveLength(2);
});

test('an answer is told to whom it answers, on the desk, and to nobody else', async () => {
  const id = await write('author', 'A', 'answer me');
  await people.mate!.send('PUT', `/api/replies/${v7()}`, { parentId: id, note: 'a particular answer' });
  const notices = async (name: Viewer) => (await people[name]!.send<Desk>('GET', '/api/desk')).body.notices.filter((n) => n.reply === 'a particular answer').length;
  expect([await notices('author'), await notices('mate'), await notices('teacher'), await notices('other')]).toEqual([1, 0, 0, 0]);
  await people.author!.send('PATCH', `/api/annotations/${id}`, { version: 1, deleted: true });
  expect(await notices('author')).toBe(0);
  await people.author!.send('PATCH', `/api/annotations/${id}`, { version: 2, deleted: false });
  expect(await notices('author')).toBe(1);
});

test('leaving a class by taking its source out hides what was written for it', async () => {
  const id = await people.author!.keepText('second', 'A second text about the tide.');
  await people.author!.send('PUT', `/api/classes/${classIds.A}/sources/${id}`, {});
  expect((await people.mate!.send('GET', `/api/sources/${id}`)).status).toBe(200);
  expect((await people.mate!.send('DELETE', `/api/classes/${classIds.A}/sources/${id}`)).status).toBe(403);
  expect((await people.author!.send('DELETE', `/api/classes/${classIds.A}/sources/${id}`)).status).toBe(204);
  expect((await people.mate!.send('GET', `/api/sources/${id}`)).status).toBe(404);
});
