import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Annotation, Desk, Problem, Report, ThreadPage } from '@avrelle/core/wire';
import { makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { tideMark } from '../testing/tide-mark';

let server: Server;
let teacher: Client;
let ines: Client;
let tomas: Client;
let id: string;
let sourceId: string;
let versionId: string;

beforeAll(async () => {
  server = await startServer();
  teacher = await server.person('Teacher');
  ines = await server.person('Ines');
  tomas = await server.person('Tomas');
});
afterAll(() => server.close());
beforeEach(async () => {
  ({ id, sourceId, versionId } = await makeReadingClass(teacher, ines, tomas));
});

const write = async (who: Client, note: string, more: object = {}): Promise<string> => {
  const made = v7();
  await who.send('PUT', `/api/annotations/${made}`, tideMark(sourceId, versionId, { note, classIds: [id], ...more }));
  return made;
};
const answer = async (who: Client, parentId: string, note: string): Promise<string> => {
  const made = v7();
  await who.send('PUT', `/api/replies/${made}`, { parentId, note });
  return made;
};
const page = async (who: Client, query = ''): Promise<ThreadPage> =>
  (await who.send<ThreadPage>('GET', `/api/classes/${id}/threads?${query}`)).body;
const words = async (who: Client, query = ''): Promise<string[]> =>
  (await page(who, query)).threads.map((t) => t.words);

test('the threads of a class: notes, and marks that were answered; in any order, with how many answers', async () => {
  const [first, second] = [await write(ines, 'First.'), await write(tomas, 'Second.')];
  const bare = await write(ines, '');
  expect(await words(teacher, 'sort=newest')).toEqual(['Second.', 'First.']);
  await answer(teacher, bare, 'Why this?');
  await answer(tomas, first, 'Yes.');
  await answer(teacher, first, 'No.');
  expect(await words(ines)).toEqual(['First.', '', 'Second.']);
  expect(await words(ines, 'sort=author')).toEqual(['', 'First.', 'Second.']);
  expect(await words(ines, 'sort=answers&limit=1')).toEqual(['First.']);
  expect((await page(ines, 'sort=answers&limit=1')).total).toBe(3);
  expect(await words(ines, 'only=unanswered')).toEqual(['Second.']);
  expect(await words(ines, `source=${v7()}`)).toEqual([]);
  expect((await page(ines)).threads[0]).toMatchObject({ id: first, answers: 2, author: { name: 'Ines' } });
  expect(second).toBeTruthy();
});

test('found by the search language, also by what was answered; a fault in it is told', async () => {
  const first = await write(ines, 'About mud.', { kind: 'doubt', tags: ['week5'] });
  await write(tomas, 'About eels.');
  await answer(teacher, first, 'Rather silt.');
  const found = (q: string) => words(tomas, `q=${encodeURIComponent(q)}`);
  expect([await found('silt'), await found('kind:doubt'), await found('#week5'), await found('by:tomas')]).toEqual([
    ['About mud.'],
    ['About mud.'],
    ['About mud.'],
    ['About eels.'],
  ]);
  expect((await tomas.send<Problem>('GET', `/api/classes/${id}/threads?q=${encodeURIComponent('(a')}`)).body.code).toBe(
    'query',
  );
});

test('what is unread and what is starred is each person’s own, and stays', async () => {
  const first = await write(ines, 'First.');
  const theirs = await answer(tomas, first, 'Yes.');
  const unread = async (who: Client) => (await page(who)).threads.map((t) => t.unread);
  expect([await unread(teacher), await unread(ines), await unread(tomas)]).toEqual([[2], [1], [1]]);
  await ines.send('POST', '/api/annotations/seen', { annotationIds: [theirs] });
  await teacher.send('POST', `/api/classes/${id}/threads/seen`, {});
  expect([await unread(teacher), await unread(ines), await unread(tomas)]).toEqual([[0], [0], [1]]);
  expect([await words(ines, 'only=unread'), await words(tomas, 'only=unread'), (await page(tomas)).unread]).toEqual([
    [],
    ['First.'],
    1,
  ]);
  await answer(tomas, first, 'Once more.');
  expect(await unread(teacher)).toEqual([1]);
  const star = (starred: boolean) => tomas.send('PUT', `/api/annotations/${first}/star`, { starred });
  await star(true);
  await star(true);
  expect([await words(tomas, 'only=starred'), await words(ines, 'only=starred')]).toEqual([['First.'], []]);
  await star(false);
  expect(await words(tomas, 'only=starred')).toEqual([]);
});

test('nobody finds what they do not see: held, for teachers, withheld, taken back; strangers nothing', async () => {
  const held = await write(teacher, 'Held.', { held: true });
  await write(ines, 'For teachers.', { teachersOnly: true });
  const [gone, kept] = [await write(tomas, 'Taken back.'), await write(tomas, 'Answered, then taken back.')];
  await answer(teacher, kept, 'Still here.');
  for (const one of [gone, kept]) await tomas.send('PATCH', `/api/annotations/${one}`, { version: 1, deleted: true });
  expect([await words(tomas), await words(ines), await words(teacher)]).toEqual([
    [''],
    ['', 'For teachers.'],
    ['', 'For teachers.', 'Held.'],
  ]);
  expect((await page(tomas)).threads[0]).toMatchObject({ deleted: true, answers: 1 });
  expect((await tomas.send('PUT', `/api/annotations/${held}/star`, { starred: true })).status).toBe(404);
  await teacher.send('PUT', `/api/classes/${id}/assignments/${sourceId}`, { othersSeen: 'after_release' });
  expect(await words(ines)).toEqual(['For teachers.']);
  const stranger = await server.person('Stranger');
  expect((await stranger.send('GET', `/api/classes/${id}/threads`)).status).toBe(404);
});

test('who teaches recommends something to all who see it; nobody else does', async () => {
  const first = await write(ines, 'First.');
  const theirs = await answer(tomas, first, 'Well put.');
  const endorse = (who: Client, endorsed: boolean) =>
    who.send<Annotation & Problem>('PUT', `/api/classes/${id}/annotations/${theirs}/endorsed`, { endorsed });
  expect((await endorse(ines, true)).body.code).toBe('teachers_only');
  expect((await endorse(teacher, true)).body.endorsed).toBe('Teacher');
  expect((await page(tomas, 'only=endorsed')).threads).toMatchObject([{ id: first, endorsed: 'Teacher' }]);
  expect((await tomas.send<Annotation>('GET', `/api/annotations/${theirs}`)).body.endorsed).toBe('Teacher');
  await endorse(teacher, false);
  expect(await words(tomas, 'only=endorsed')).toEqual([]);
});

test('what a teacher hides is seen by who teaches and its author, who is told why; it can be shown again', async () => {
  const first = await write(ines, 'Too loud.');
  const theirs = await answer(tomas, first, 'Quite.');
  const hide = (reason: string | null, who = teacher, what = first) =>
    who.send<Annotation & Problem>('PUT', `/api/classes/${id}/annotations/${what}/hidden`, { reason });
  expect([(await hide('Loud.', tomas)).body.code, (await hide(' ')).status]).toEqual(['teachers_only', 400]);
  expect((await hide('Not in this tone.')).body.hidden).toEqual([
    { classId: id, reason: 'Not in this tone.', by: 'Teacher' },
  ]);
  const seen = async (who: Client) => (await who.send('GET', `/api/annotations/${first}`)).status;
  expect([await seen(ines), await seen(teacher), await seen(tomas)]).toEqual([200, 200, 404]);
  expect([await words(ines), await words(teacher, 'only=hidden'), await words(tomas)]).toEqual([
    ['Too loud.'],
    ['Too loud.'],
    [],
  ]);
  const told = async () => (await ines.send<Desk>('GET', '/api/desk')).body.notices[0]!;
  expect(await told()).toMatchObject({ why: 'hidden', actor: 'Teacher', reply: 'Not in this tone.' });
  // Neither changing it nor taking it away and giving it anew shows it again.
  await ines.send('PATCH', `/api/annotations/${first}`, { version: 1, note: 'Softer.', teachersOnly: false });
  await ines.send('PATCH', `/api/annotations/${first}`, { version: 2, classIds: [] });
  expect(await seen(teacher)).toBe(200);
  await ines.send('PATCH', `/api/annotations/${first}`, { version: 3, classIds: [id] });
  expect(await seen(tomas)).toBe(404);
  await hide(null);
  expect([await words(tomas), (await told())?.why]).toEqual([['Softer.'], 'answer']);
  await hide('Nor this.', teacher, theirs);
  expect([(await page(ines)).threads[0]!.answers, (await page(tomas)).threads[0]!.answers]).toEqual([0, 1]);
});

test('what is reported stands on the Desk of who teaches until it is settled; nobody else learns of it', async () => {
  const first = await write(ines, 'Too loud.');
  const url = `/api/classes/${id}/annotations/${first}`;
  const report = (words: string, who = tomas) => who.send<Problem>('PUT', `${url}/report`, { words });
  expect((await report(' ')).status).toBe(400);
  await report('It shouts.');
  await report('It shouts at me.');
  const told = async (who: Client) =>
    (await who.send<Desk>('GET', '/api/desk')).body.notices.filter((n) => n.why === 'reported' && n.class?.id === id);
  expect(await told(teacher)).toMatchObject([{ actor: 'Tomas', reply: 'It shouts at me.', rootId: first }]);
  expect([await told(ines), await told(tomas), await words(ines, 'only=reported')]).toEqual([[], [], []]);
  expect(await words(teacher, 'only=reported')).toEqual(['Too loud.']);
  expect((await tomas.send<Problem>('GET', `/api/classes/${id}/reports`)).body.code).toBe('teachers_only');
  expect((await teacher.send<Report[]>('GET', `/api/classes/${id}/reports`)).body).toMatchObject([
    { annotationId: first, by: { name: 'Tomas' }, words: 'It shouts at me.' },
  ]);
  await teacher.send('PUT', `${url}/settled`);
  expect([await told(teacher), await words(teacher, 'only=reported')]).toEqual([[], []]);
  await report('Again.');
  expect(await told(teacher)).toHaveLength(1);
  const own = await write(ines, 'For me alone.', { classIds: [] });
  const unseen = `/api/classes/${id}/annotations/${own}/report`;
  expect((await tomas.send('PUT', unseen, { words: 'What is it?' })).status).toBe(404);
});
