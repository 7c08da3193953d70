import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Annotation, AnnotationPage, ClassDetail, Desk, DeskNotice, HeldNote, Problem } from '@avrelle/core/wire';
import { keepTime } from '../assignments/passing-time';
import { makeClass, makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { putTideMark } from '../testing/tide-mark';

let server: Server;
let teacher: Client;
let assistant: Client;
let ines: Client;
let tomas: Client;
let id: string;
let sourceId: string;
let versionId: string;

beforeAll(async () => {
  server = await startServer();
  [teacher, assistant, ines, tomas] = (await Promise.all(
    ['Teacher', 'Assistant', 'Ines', 'Tomas'].map((name) => server.person(name)),
  )) as [Client, Client, Client, Client];
});
afterAll(() => server.close());
/** A class with an assistant and two students, which reads a text of its teacher's. */
beforeEach(async () => {
  ({ id, sourceId, versionId } = await makeReadingClass(teacher, assistant, ines, tomas));
  await teacher.send('PUT', `/api/classes/${id}/members/${assistant.me.id}`, { role: 'assistant' });
});

const write = (who: Client, more: object = {}): Promise<string> => putTideMark(who, { id, sourceId, versionId }, more);
const hold = (note = 'Look at the date.', who = teacher) => write(who, { held: true, note });
const annotations = async (who: Client) =>
  (await who.send<Annotation[]>('GET', `/api/sources/${sourceId}/annotations`)).body;
const sees = async (who: Client): Promise<string[]> => (await annotations(who)).map((a) => a.id).toSorted();
const found = async (who: Client, q = 'date'): Promise<number> =>
  (await who.send<AnnotationPage>('GET', `/api/annotations?q=${encodeURIComponent(q)}`)).body.total;
const release = <T = { changed: number }>(annotationIds: readonly string[], more: object = {}, who = teacher) =>
  who.send<T>('POST', `/api/classes/${id}/held/release`, { annotationIds, ...more });
const back = <T = { changed: number }>(annotationIds: readonly string[]) =>
  teacher.send<T>('POST', `/api/classes/${id}/held/back`, { annotationIds });
const held = async (): Promise<HeldNote[]> => (await teacher.send<HeldNote[]>('GET', `/api/classes/${id}/held`)).body;
const told = async (who: Client): Promise<DeskNotice[]> =>
  (await who.send<Desk>('GET', '/api/desk')).body.notices.filter((n) => n.sourceId === sourceId);
const HOUR = 3_600_000;
const fromNow = (hours: number): string => new Date(Date.parse(server.context.now()) + hours * HOUR).toISOString();
const pass = (hours: number): void => {
  const now = fromNow(hours);
  keepTime({ ...server.context, now: () => now });
};

test('what is held is there for who teaches alone, in every list and count, until it is released', async () => {
  const one = await hold();
  const counted = async (who: Client) =>
    (await who.send<ClassDetail>('GET', `/api/classes/${id}`)).body.members.map((m) => m.annotations);
  expect([await sees(assistant), await sees(ines), await found(assistant)]).toEqual([[one], [], 1]);
  expect([await found(ines), await counted(ines)]).toEqual([0, [0, 0, 0, 0]]);
  expect((await annotations(assistant))[0]!.held).toEqual([{ classId: id, releaseAt: null }]);
  expect((await held()).map((n) => [n.id, n.words, n.source.id])).toEqual([[one, 'Look at the date.', sourceId]]);
  expect((await ines.send<Problem>('GET', `/api/classes/${id}/held`)).body.code).toBe('teachers_only');

  expect((await release([one], {}, assistant)).body.changed).toBe(1);
  expect([await sees(ines), await found(ines), await held()]).toEqual([[one], 1, []]);
  expect((await annotations(ines))[0]!.held).toBeUndefined();
});

test('each student is told once of all that was released, two releases at once release it once', async () => {
  const some = [await hold('One.'), await hold('Two.')];
  const [first, second] = await Promise.all([release(some), release(some, {}, assistant)]);
  expect([first.body.changed, second.body.changed].toSorted()).toEqual([0, 2]);
  expect((await told(ines)).map(({ why, notes, annotationId }) => [why, notes, annotationId])).toEqual([
    ['released', 2, some[0]],
  ]);
  expect([(await told(tomas)).length, (await told(teacher)).length, (await told(assistant)).length]).toEqual([1, 0, 0]);
});

test('who is meant in what is held is told of it when it is released, not before', async () => {
  const one = await hold(`See here, [@Ines](avrelle:person/${ines.me.id}).`);
  expect(await told(ines)).toEqual([]);
  await release([one]);
  expect((await told(ines)).map((n) => n.why).toSorted()).toEqual(['mention', 'released']);
});

test('released at its time, caught up after a standstill, never twice; by hand again where that is said', async () => {
  const [soon, later] = [await hold('Soon.'), await hold('Later.')];
  await release([soon, later], { at: fromNow(2) });
  await release([later], { at: null });
  expect((await held()).map((n) => n.releaseAt !== null).toSorted()).toEqual([false, true]);
  pass(1);
  expect(await sees(ines)).toEqual([]);
  pass(50);
  pass(51);
  expect([await sees(ines), (await told(ines)).map((n) => [n.actor, n.notes])]).toEqual([
    [soon],
    [['Field Course', 1]],
  ]);
  expect((await release([later], { at: fromNow(-1) })).body.changed).toBe(1);
  expect(await sees(ines)).toEqual([soon, later].toSorted());
});

test('what is deleted is not released at its time, and when that is undone it is', async () => {
  const one = await hold();
  await release([one], { at: fromNow(1) });
  await teacher.send('PATCH', `/api/annotations/${one}`, { version: 1, deleted: true });
  const begun = server.context.db.raw.prepare('SELECT total_changes() AS n').pluck();
  const before = begun.get();
  pass(2);
  expect(begun.get()).toBe(before);
  await teacher.send('PATCH', `/api/annotations/${one}`, { version: 2, deleted: false });
  expect(await sees(ines)).toEqual([]);
  pass(2);
  expect(await sees(ines)).toEqual([one]);
});

test('it can be taken back until a student has had it before their eyes', async () => {
  const one = await hold();
  await release([one]);
  const see = (who: Client) => who.send('POST', '/api/annotations/seen', { annotationIds: [one] });
  await see(assistant);
  expect((await back([one])).body.changed).toBe(1);
  expect([await sees(ines), await told(ines), (await held()).length]).toEqual([[], [], 1]);
  // What one does not see, one has not read.
  await see(ines);
  await release([one]);
  expect((await back([one])).body.changed).toBe(1);
  await release([one]);
  await see(ines);
  expect((await back<Problem>([one])).body).toMatchObject({
    code: 'read_already',
    detail: expect.stringContaining('One'),
  });
  expect(await sees(tomas)).toEqual([one]);
});

test('in each class of several it is released by itself; students learn of no class where it is held', async () => {
  const other = await makeClass(teacher, 'Other Course', tomas);
  await teacher.send('PUT', `/api/classes/${other}/sources/${sourceId}`);
  const one = await write(teacher, { classIds: [id, other], held: true });
  await teacher.send('POST', `/api/classes/${other}/held/release`, { annotationIds: [one] });
  expect([await sees(tomas), await sees(ines)]).toEqual([[one], []]);
  expect((await annotations(tomas))[0]).toMatchObject({ classIds: [other] });
  expect((await annotations(teacher))[0]).toMatchObject({ held: [{ classId: id, releaseAt: null }] });
  const inFirst = await tomas.send<AnnotationPage>(
    'GET',
    `/api/annotations?q=${encodeURIComponent('in:"Field Course" tide')}`,
  );
  expect(inFirst.body.annotations.filter((a) => a.id === one)).toEqual([]);
});

describe('for the teachers alone', () => {
  test('what a student writes is seen by who teaches; so is what is answered, also once it is opened', async () => {
    const one = await write(ines, { teachersOnly: true });
    expect([await sees(teacher), await sees(assistant), await sees(tomas)]).toEqual([[one], [one], []]);
    const answer = v7();
    await teacher.send('PUT', `/api/replies/${answer}`, { parentId: one, note: 'Well seen.' });
    expect([await sees(ines), await found(ines, 'seen')]).toEqual([[one, answer].toSorted(), 1]);
    expect([await found(assistant, 'seen'), await found(tomas, 'seen')]).toEqual([1, 0]);
    await ines.send('PATCH', `/api/annotations/${one}`, { version: 1, teachersOnly: false });
    expect([await sees(tomas), await sees(assistant)]).toEqual([[one], [one, answer].toSorted()]);
  });

  test('so is what colleagues answer to something held, also when that is released', async () => {
    const one = await hold();
    const answer = v7();
    await assistant.send('PUT', `/api/replies/${answer}`, { parentId: one, note: 'I would leave that out.' });
    await release([one]);
    expect([await sees(ines), await sees(teacher)]).toEqual([[one], [one, answer].toSorted()]);
  });
});

test('only who teaches the class holds anything; its author changes for whom it is, and releases it so', async () => {
  await expect(hold('Mine.', ines)).rejects.toThrow('teachers_only');
  const patch = (of: string, version: number, more: object, who = teacher) =>
    who.send<Annotation & Problem>('PATCH', `/api/annotations/${of}`, { version, ...more });
  const own = await write(ines);
  expect((await patch(own, 1, { held: true }, ines)).body.code).toBe('teachers_only');
  const one = await write(teacher);
  expect((await patch(one, 1, { held: true })).body.held).toHaveLength(1);
  expect(await sees(ines)).toEqual([own]);
  expect((await patch(one, 2, { held: false })).body.held).toBeUndefined();
  expect([await sees(ines), (await told(tomas)).length]).toEqual([[own, one].toSorted(), 1]);
});
