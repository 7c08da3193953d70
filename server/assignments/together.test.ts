import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Annotation, AnnotationPage, Assignment, ClassAssignments, Problem, ThreadPage } from '@avrelle/core/wire';
import { removeExpired } from '../library/remove-expired';
import { makeClass, makeReadingClass } from '../testing/classes';
import { startServer, type Answer, type Client, type Server } from '../testing/harness';
import { putTideMark } from '../testing/tide-mark';

let server: Server;
let teacher: Client;
/** Teaches the second class alone. */
let rhona: Client;
/** In the first class. */
let ines: Client;
/** In the second. */
let sten: Client;
let first: string;
let second: string;
let sourceId: string;
let versionId: string;
beforeAll(async () => {
  server = await startServer();
  teacher = await server.person('Teacher');
  rhona = await server.person('Rhona');
  ines = await server.person('Ines');
  sten = await server.person('Sten');
});
afterAll(() => server.close());
beforeEach(async () => {
  ({ id: first, sourceId, versionId } = await makeReadingClass(teacher, ines));
  second = await makeClass(teacher, 'Evening', sten, rhona);
  await teacher.send('PUT', `/api/classes/${second}/members/${rhona.me.id}`, { role: 'assistant' });
  await teacher.send('PUT', `/api/classes/${second}/sources/${sourceId}`);
});

const url = (classId: string): string => `/api/classes/${classId}/assignments/${sourceId}`;
const setForBoth = (more: object = {}): Promise<Answer<Assignment>> =>
  teacher.send('PUT', url(first), { answers: 1, alsoIn: [second], together: true, ...more });
const setIn = async (who: Client, classId: string): Promise<Assignment> =>
  (await who.send<ClassAssignments>('GET', `/api/classes/${classId}/assignments`)).body.assignments[0]!;
const mark = (who: Client, id: string, more: object = {}): Promise<string> =>
  putTideMark(who, { id, sourceId, versionId }, more);
const all = async (who: Client): Promise<readonly Annotation[]> =>
  (await who.send<Annotation[]>('GET', `/api/sources/${sourceId}/annotations`)).body;
const sees = async (who: Client): Promise<string[]> => (await all(who)).map((a) => a.id).toSorted();
const change = (who: Client, id: string, body: object): Promise<Answer<Annotation>> =>
  who.send('PATCH', `/api/annotations/${id}`, { version: 1, ...body });
const hide = (classId: string, id: string, reason: string | null): Promise<Answer<unknown>> =>
  teacher.send('PUT', `/api/classes/${classId}/annotations/${id}/hidden`, { reason });

test('what is written for one class stands in the other, and is answered there', async () => {
  expect((await setForBoth()).body.together.map(({ name }) => name)).toEqual(['Evening']);
  expect((await setIn(sten, second)).together.map(({ id }) => id)).toEqual([first]);
  const made = await mark(ines, first, { note: 'About mud.' });
  const [theirs] = await all(sten);
  expect(theirs).toMatchObject({ id: made, classIds: [second] });
  expect(theirs).not.toHaveProperty('elsewhere');
  // Who wrote it chose one class; that both see it is said of the reading.
  expect((await all(ines))[0]!.classIds).toEqual([first]);
  const threads = await rhona.send<ThreadPage>('GET', `/api/classes/${second}/threads`);
  expect(threads.body.threads.map(({ words }) => words)).toEqual(['About mud.']);
  const found = await sten.send<AnnotationPage>('GET', '/api/annotations?q=mud');
  expect(found.body.annotations.map(({ id }) => id)).toEqual([made]);
  const reply = v7();
  expect((await sten.send('PUT', `/api/replies/${reply}`, { parentId: made, note: 'Why?' })).status).toBe(200);
  expect(await sees(ines)).toEqual([made, reply]);
  expect((await setIn(sten, second)).missing).toMatchObject({ answers: 0 });
});

test('what is for the teachers, a group, or held is not for the other class; what is shown then is', async () => {
  await setForBoth();
  await mark(ines, first, { teachersOnly: true });
  const held = await mark(teacher, first, { held: true });
  expect([await sees(sten), await sees(rhona)]).toEqual([[], []]);
  await teacher.send('POST', `/api/classes/${first}/held/release`, { annotationIds: [held] });
  expect(await sees(sten)).toEqual([held]);
  const taken = await change(teacher, held, { classIds: [] });
  expect([taken.status, await sees(sten)]).toEqual([200, []]);
});

test('each class hides for its own; what is hidden where it was written stands nowhere else', async () => {
  await setForBoth();
  const made = await mark(ines, first);
  await hide(second, made, 'Loud.');
  expect([await sees(sten), await sees(rhona)]).toEqual([[], [made]]);
  // A change of words, or choosing that class as well, does not show it.
  await change(ines, made, { note: 'Louder.' });
  expect(await sees(sten)).toEqual([]);
  await hide(second, made, null);
  expect(await sees(sten)).toEqual([made]);
  await hide(first, made, 'Not here.');
  expect(await sees(sten)).toEqual([]);
});

test('what students wrote before stays in their class; what its teachers wrote does not', async () => {
  const before = await mark(ines, first);
  const taught = await mark(teacher, first);
  await setForBoth();
  expect([await sees(sten), await sees(ines)]).toEqual([[taught], [before, taught]]);
});

test('a class that reads by itself again, or reads it no more, sees nothing of the other', async () => {
  await setForBoth();
  const theirs = await mark(ines, first);
  const own = await mark(sten, second);
  const both = [theirs, own];
  expect([await sees(ines), await sees(sten)]).toEqual([both, both]);
  await teacher.send('DELETE', `/api/classes/${second}/sources/${sourceId}`);
  expect(await sees(ines)).toEqual([theirs]);
  await teacher.send('PUT', `/api/classes/${second}/sources/${sourceId}`);
  expect([await sees(ines), await sees(sten)]).toEqual([both, both]);
  const apart = await teacher.send<Assignment>('PUT', url(second), { answers: 1, version: 1, together: false });
  expect(apart.body.together).toEqual([]);
  expect([await sees(ines), await sees(sten)]).toEqual([[theirs], [own]]);
  // What was found by words of the other is not found either.
  const found = await sten.send<AnnotationPage>('GET', '/api/annotations?q=kind:claim');
  const ids = found.body.annotations.map(({ id }) => id);
  expect([ids.includes(own), ids.includes(theirs)]).toEqual([true, false]);
});

test('two classes that read together with a third are not joined by the way', async () => {
  await setForBoth();
  const third = await makeClass(teacher, 'Third');
  const set = await teacher.send<Problem>('PUT', url(third), { answers: 1, alsoIn: [second], together: true });
  expect([set.status, set.body.code]).toEqual([409, 'together_already']);
  await teacher.send('DELETE', url(first));
  const again = await teacher.send<Assignment>('PUT', url(third), { answers: 1, alsoIn: [second], together: true });
  expect([again.status, again.body.together.length]).toEqual([200, 1]);
  // The same once more, as when the answer was lost.
  const repeated = await teacher.send<Assignment>('PUT', url(third), { answers: 1, alsoIn: [second], together: true });
  expect(repeated.body).toMatchObject({ version: 1, together: [{ id: second }] });
});

test('what came from a class that is gone for good goes with it, and is not found any more', async () => {
  await setForBoth();
  const made = await mark(ines, first, { note: 'Zostera beds.' });
  await teacher.send('DELETE', `/api/classes/${first}`);
  const found = async (): Promise<number> =>
    (await sten.send<AnnotationPage>('GET', '/api/annotations?q=zostera')).body.total;
  expect([await sees(sten), await found()]).toEqual([[made], 1]);
  const later = new Date(Date.parse(server.context.now()) + 31 * 86_400_000).toISOString();
  removeExpired({ db: server.context.db, now: () => later });
  expect([await sees(sten), await found()]).toEqual([[], 0]);
});
