import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import Papa from 'papaparse';
import { v7 } from 'uuid';
import type {
  Annotation,
  Assignment,
  AssignmentDetail,
  ClassAssignments,
  ClassDetail,
  Desk,
  Problem,
  SourceDetail,
  SourcePage,
} from '@avrelle/core/wire';
import { makeClass, makeReadingClass } from '../testing/classes';
import { putTideMark, tideMark } from '../testing/tide-mark';
import { startServer, type Client, type Server } from '../testing/harness';
import { keepTime } from './passing-time';

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

/** A class of two students, which reads a text of its teacher's. */
beforeEach(async () => {
  ({ id, sourceId, versionId } = await makeReadingClass(teacher, ines, tomas));
});

const HOUR = 3_600_000;
const fromNow = (hours: number): string => new Date(Date.parse(server.context.now()) + hours * HOUR).toISOString();
const place = (): string => `/api/classes/${id}/assignments/${sourceId}`;
const put = <T = Assignment>(body: object, who = teacher) => who.send<T>('PUT', place(), body);
const setFor = async (who: Client): Promise<Assignment | undefined> =>
  (await who.send<ClassAssignments>('GET', `/api/classes/${id}/assignments`)).body.assignments?.[0];
/** Marks “tide” for the class; the id. */
const mark = (who: Client, more: object = {}): Promise<string> => putTideMark(who, { id, sourceId, versionId }, more);
const sees = async (who: Client): Promise<string[]> =>
  (await who.send<Annotation[]>('GET', `/api/sources/${sourceId}/annotations`)).body.map((a) => a.id).toSorted();
/** As if so many hours had passed. */
const pass = (hours: number): void => {
  const now = fromNow(hours);
  keepTime({ ...server.context, now: () => now });
};

test('what is asked for is told to each as their own, and to the teacher as how many did it', async () => {
  await put({
    instructions: 'Read it **twice**.',
    marks: [{ kind: 'claim', count: 2 }],
    answers: 1,
    dueAt: fromNow(24),
  });
  const first = await mark(ines);
  await mark(tomas, { kind: 'doubt' });
  await tomas.send('PUT', `/api/replies/${v7()}`, { parentId: first, note: 'Why at seven?' });
  expect(await setFor(ines)).toMatchObject({
    instructions: 'Read it **twice**.',
    missing: { marks: [{ kind: 'claim', name: 'Claim', count: 1 }], answers: 1 },
    progress: null,
  });
  expect((await setFor(tomas))!.missing).toEqual({
    marks: [{ kind: 'claim', name: 'Claim', count: 2 }],
    answers: 0,
    questions: 0,
  });
  expect(await setFor(teacher)).toMatchObject({
    missing: null,
    progress: { students: 2, begun: 2, done: 0, marks: 2, answers: 1 },
  });
  await mark(ines);
  const second = await mark(tomas, { kind: 'claim' });
  await ines.send('PUT', `/api/replies/${v7()}`, { parentId: second, note: 'Indeed.' });
  expect((await setFor(teacher))!.progress!.done).toBe(1);
  expect((await ines.send<Assignment[]>('GET', `/api/assignments?source=${sourceId}`)).body[0]!.missing).toEqual({
    marks: [],
    answers: 0,
    questions: 0,
  });
  // The teacher marks the same sentence: there is one.
  await mark(teacher);
  const { text } = await teacher.send('GET', `/api/classes/${id}/assignments/${sourceId}/students.csv`);
  const table = Papa.parse<Record<string, string>>(text, { header: true }).data;
  expect(table.map((row) => [row.student, row.marks, row['still missing'], row['of the teachers']])).toEqual([
    ['Ines', '2', '', '1'],
    ['Tomas', '2', 'one claim', '1'],
  ]);
  const passages = await teacher.send('GET', `/api/classes/${id}/assignments/${sourceId}/passages.csv`);
  const [passage, ...more] = Papa.parse<Record<string, string>>(passages.text, { header: true }).data;
  expect(more).toEqual([]);
  expect(passage).toEqual({
    ...{ sentence: '1', words: expect.stringMatching(/^The tide turns at seven\./), students: '2' },
    ...{ 'as Claim': '2', 'as Doubt': '1', 'by a teacher as': 'Claim' },
  });
});

test('only who teaches sets a reading; what is set meanwhile is not written over; the same again changes nothing', async () => {
  expect((await put<Problem>({}, ines)).body.code).toBe('teachers_only');
  const asked = { answers: 2, dueAt: fromNow(5) };
  const { version } = (await put(asked)).body;
  expect((await put(asked)).body.version).toBe(version);
  expect((await put<Problem>({ answers: 3 })).body.code).toBe('stale');
  expect((await put({ answers: 3, version })).body.expected.answers).toBe(3);
  expect((await put<Problem>({ answers: 4, version })).body.code).toBe('stale');
  expect((await teacher.send('DELETE', place())).status).toBe(204);
  expect([await setFor(teacher), (await ines.send('GET', `/api/sources/${sourceId}`)).status]).toEqual([
    undefined,
    200,
  ]);
});

test.each([
  ['due before it opens', () => ({ opensAt: fromNow(2), dueAt: fromNow(1) }), 'due before it opens'],
  ['no such date', () => ({ dueAt: '2026-02-30T10:00:00.000Z' }), 'no date and time'],
  ['after a due date there is none of', () => ({ othersSeen: 'after_due' }), 'Choose when it is due'],
  ['a kind twice', () => ({ marks: [1, 2].map((count) => ({ kind: 'claim', count })) }), 'once'],
  ['a kind there is none of', () => ({ marks: [{ kind: v7(), count: 1 }] }), 'kind'],
  ['no marks at all of a kind', () => ({ marks: [{ kind: 'claim', count: 0 }] }), 'one mark at least'],
])('refused with a word why: %s', async (_what, body, why) => {
  const { status, body: problem } = await put<Problem>(body());
  expect([status, problem.detail]).toEqual([400, expect.stringContaining(why)]);
});

describe('from when on the others are seen', () => {
  test('after one’s own: then, at once and for good; who teaches sees all, and is seen by all', async () => {
    await put({ marks: [{ kind: null, count: 2 }], othersSeen: 'after_own' });
    const [theirs, shown] = [await mark(tomas), await mark(teacher)];
    expect([await sees(ines), await sees(teacher)]).toEqual([[shown], [theirs, shown].toSorted()]);
    expect((await ines.send('GET', `/api/annotations/${theirs}`)).status).toBe(404);
    const own = await mark(ines);
    expect((await setFor(ines))!.seesOthers).toBe(false);
    const next = await mark(ines);
    expect(await sees(ines)).toEqual([theirs, shown, own, next].toSorted());
    await ines.send('PATCH', `/api/annotations/${next}`, { version: 1, deleted: true });
    expect([(await setFor(ines))!.seesOthers, await sees(tomas)]).toEqual([true, [theirs, shown].toSorted()]);
  });

  test('who gave their own before it was asked for sees the others at once', async () => {
    const [own, theirs] = [await mark(ines), await mark(tomas)];
    await put({ othersSeen: 'after_own' });
    expect(await sees(ines)).toEqual([own, theirs].toSorted());
  });

  test('after the due date; whoever has more time, after theirs', async () => {
    await put({ othersSeen: 'after_due', dueAt: fromNow(10) });
    const [own, theirs] = [await mark(ines), await mark(tomas)];
    const extend = (dueAt: string | null) =>
      teacher.send<Problem>('PUT', `${place()}/extensions/${ines.me.id}`, { dueAt });
    expect((await extend(fromNow(9))).body.code).toBe('not_later');
    expect((await extend(fromNow(20))).status).toBe(204);
    pass(9);
    expect(await sees(tomas)).toEqual([theirs]);
    pass(11);
    expect([await sees(tomas), await sees(ines)]).toEqual([[own, theirs].toSorted(), [own]]);
    expect((await setFor(ines))!.myDueAt! > (await setFor(tomas))!.myDueAt!).toBe(true);
    pass(21);
    expect(await sees(ines)).toEqual([own, theirs].toSorted());
    expect((await extend(null)).status).toBe(204);
  });

  test('after its release by hand, which can be taken back; two at once release it once', async () => {
    await put({ othersSeen: 'after_release' });
    const [own, theirs] = [await mark(ines), await mark(tomas)];
    const show = (shown: boolean) => teacher.send<Assignment>('POST', `${place()}/shown`, { shown });
    const [one, other] = await Promise.all([show(true), show(true)]);
    expect([one.body.shownAt, one.body.version]).toEqual([other.body.shownAt, other.body.version]);
    expect(await sees(ines)).toEqual([own, theirs].toSorted());
    await show(false);
    expect(await sees(ines)).toEqual([own]);
  });
});

test('what is due is found by its day, where one has more time by theirs; what is not open is not found', async () => {
  const found = async (who: Client, q: string) =>
    (await who.send<SourcePage>('GET', `/api/sources?q=${encodeURIComponent(`${q} title:${id}`)}`)).body.total;
  await put({ dueAt: fromNow(3 * 24) });
  await teacher.send('PUT', `${place()}/extensions/${ines.me.id}`, { dueAt: fromNow(20 * 24) });
  const all = async (q: string) => [await found(teacher, q), await found(tomas, q), await found(ines, q)];
  expect([await all('due:next 7 days'), await all('due:next month'), await all('due:today')]).toEqual([
    [1, 1, 0],
    [1, 1, 1],
    [0, 0, 0],
  ]);
  const { version } = (await setFor(teacher))!;
  await put({ version, opensAt: fromNow(2), dueAt: fromNow(3 * 24) });
  expect(await all('due:next 7 days')).toEqual([1, 0, 0]);
  expect((await tomas.send<Problem>('GET', `/api/sources?q=${encodeURIComponent('due>next week')}`)).body.code).toBe(
    'query',
  );
});

test('a reading that is not open yet is there for its teachers alone, in every list and count; it opens at its moment', async () => {
  await put({ opensAt: fromNow(3) });
  const detail = async (who: Client) => (await who.send<ClassDetail>('GET', `/api/classes/${id}`)).body;
  const there = async (who: Client) => [
    (await who.send('GET', `/api/sources/${sourceId}`)).status,
    (await detail(who)).sources,
    (await detail(who)).readings.length,
    (await setFor(who)) !== undefined,
    (await who.send<Assignment[]>('GET', '/api/assignments')).body.some((a) => a.source.id === sourceId),
  ];
  expect(await there(ines)).toEqual([404, 0, 0, false, false]);
  expect(await there(teacher)).toEqual([200, 1, 1, true, true]);
  pass(3);
  expect(await there(ines)).toEqual([200, 1, 1, true, true]);
});

test('where comments are closed students write for themselves alone; teachers go on', async () => {
  const before = await mark(tomas);
  await put({ comments: false });
  await expect(mark(ines)).rejects.toThrow('comments_closed');
  const answer = await ines.send<Problem>('PUT', `/api/replies/${v7()}`, { parentId: before, note: 'Indeed.' });
  expect(answer.body.code).toBe('comments_closed');
  const own = await mark(ines, { classIds: [] });
  const patch = (of: string, who: Client, more: object) =>
    who.send<Problem>('PATCH', `/api/annotations/${of}`, { version: 1, ...more });
  expect((await patch(own, ines, { classIds: [id] })).body.code).toBe('comments_closed');
  expect((await patch(before, tomas, { note: 'Still mine to change.' })).status).toBe(200);
  await mark(teacher);
});

test('each student on a reading and with the week, for its teachers; a student is told of themselves alone', async () => {
  await put({ marks: [{ kind: null, count: 1 }], dueAt: fromNow(24) });
  await mark(ines);
  await ines.send('PUT', `/api/sources/${sourceId}/shelf`, { spans: [[0, 10]] });
  const own = (await ines.send<AssignmentDetail>('GET', place())).body.students;
  const { students } = (await teacher.send<AssignmentDetail>('GET', place())).body;
  expect(students.map(({ name, marks, missing, spans }) => [name, marks, missing.marks.length, spans])).toEqual([
    ['Ines', 1, 0, [[0, 10]]],
    ['Tomas', 0, 1, []],
  ]);
  expect(own).toEqual([students[0]]);
  const { week } = (await teacher.send<ClassAssignments>('GET', `/api/classes/${id}/assignments`)).body;
  expect(week).toEqual([
    expect.objectContaining({ name: 'Ines', done: 1, of: 1 }),
    expect.objectContaining({ name: 'Tomas', done: 0, of: 1, opened: 0, readShare: 0 }),
  ]);
  expect((await ines.send<ClassAssignments>('GET', `/api/classes/${id}/assignments`)).body.week).toEqual([week[0]]);
});

test('what is to be heard in order says so; what was played in two windows is added up', async () => {
  expect((await put({ inOrder: true })).body).toMatchObject({
    inOrder: true,
    published: { changed: { asked: false } },
  });
  const play = (heard: object): Promise<unknown> =>
    ines.send('PUT', `/api/sources/${sourceId}/shelf`, { versionId, heard });
  await play([[0, 12]]);
  await play([
    [10, 20],
    [40, 41],
  ]);
  expect((await ines.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body.heard).toEqual([
    [0, 20],
    [40, 41],
  ]);
  const { students } = (await teacher.send<AssignmentDetail>('GET', place())).body;
  expect(students.map(({ heardSeconds, opened }) => [heardSeconds, opened])).toEqual([
    [21, true],
    [0, false],
  ]);
  await put({ inOrder: false, version: 1, publish: false });
  expect((await setFor(ines))!.published.changed.asked).toBe(true);
});

test('taken out and put back, a reading is set as it was', async () => {
  await put({ answers: 2 });
  await teacher.send('DELETE', `/api/classes/${id}/sources/${sourceId}`);
  expect(await setFor(ines)).toBeUndefined();
  await teacher.send('PUT', `/api/classes/${id}/sources/${sourceId}`);
  expect((await setFor(ines))!.expected.answers).toBe(2);
});

describe('what has changed since it was published', () => {
  const changed = async (who: Client) => (await setFor(who))!.published.changed;
  const NOTHING = { instructions: false, asked: false, text: false, notes: 0 };
  const SET = { instructions: 'Read it.', marks: [{ kind: null, count: 1 }] };
  const publish = (number: number, more: object = {}, who = teacher) =>
    who.send<Assignment>('POST', `${place()}/published`, { number, ...more });

  test('instructions, what is asked for, the text and the teachers’ notes; published again, nothing', async () => {
    await put(SET);
    await mark(ines);
    expect([await changed(ines), await changed(teacher)]).toEqual([NOTHING, NOTHING]);
    await put({ ...SET, instructions: 'Read it twice.', version: 1, publish: false });
    expect(await changed(ines)).toEqual({ ...NOTHING, instructions: true });
    await put({ ...SET, instructions: 'Read it.', answers: 1, version: 2, publish: false });
    expect(await changed(ines)).toEqual({ ...NOTHING, asked: true });
    await mark(teacher);
    await mark(teacher, { held: true });
    await mark(teacher, { classIds: [] });
    expect([(await changed(ines)).notes, (await changed(teacher)).notes]).toEqual([1, 2]);
    await teacher.keepAgain(sourceId as never, 'The tide turns at eight. Not at seven.');
    expect(await changed(ines)).toEqual({ instructions: false, asked: true, text: true, notes: 1 });
    const { published } = (await publish(1)).body;
    expect(published).toMatchObject({ number: 2, lookedSince: null, changed: NOTHING });
    expect(await changed(ines)).toEqual(NOTHING);
  });

  test('what is released later is new then; what opens later is published as it stands when it opens', async () => {
    const held = await mark(teacher, { held: true });
    await put(SET);
    expect((await changed(ines)).notes).toBe(0);
    await teacher.send('POST', `/api/classes/${id}/held/release`, { annotationIds: [held] });
    expect((await changed(ines)).notes).toBe(1);
    await put({ ...SET, version: 1, opensAt: fromNow(2) });
    await put({ ...SET, version: 2, opensAt: fromNow(2), instructions: 'Read it twice.', publish: false });
    await mark(teacher);
    pass(3);
    expect(await changed(ines)).toEqual(NOTHING);
  });

  test('two teachers at once publish once and tell once; a change that is not published is told nobody', async () => {
    const told = async (): Promise<readonly (readonly [string, boolean])[]> =>
      (await ines.send<Desk>('GET', '/api/desk')).body.notices
        .filter((n) => n.sourceId === sourceId)
        .map((n) => [n.why, n.seen]);
    await put(SET);
    await ines.send('POST', '/api/desk/seen');
    await put({ ...SET, instructions: 'Read it twice.', version: 1, publish: false });
    expect(await told()).toEqual([['set', true]]);
    const [one, other] = await Promise.all([publish(1), publish(1)]);
    expect([one.body.published.number, other.body.published.number]).toEqual([2, 2]);
    expect(await told()).toEqual([['changed', false]]);
    expect((await publish(2, {}, ines)).status).toBe(403);
  });

  test('who has looked at it is counted anew, if that is wished; what they read stays', async () => {
    await put(SET);
    const look = () => ines.send('PUT', `/api/sources/${sourceId}/shelf`, { position: 3, spans: [[0, 10]] });
    expect((await look()).status).toBe(204);
    const detail = async () => (await teacher.send<AssignmentDetail>('GET', place())).body;
    const opened = async () => (await detail()).students.filter((one) => one.opened).map((one) => one.name);
    expect(await opened()).toEqual(['Ines']);
    await publish(1);
    expect(await opened()).toEqual(['Ines']);
    await publish(2, { lookAgain: true });
    const { students, progress } = await detail();
    expect([await opened(), progress?.opened]).toEqual([[], 0]);
    expect(students.find((one) => one.name === 'Ines')!.readShare).toBeGreaterThan(0);
    // To put it elsewhere is not to look at it.
    await ines.send('PUT', `/api/sources/${sourceId}/shelf`, { state: 'finished' });
    expect(await opened()).toEqual([]);
    await look();
    expect(await opened()).toEqual(['Ines']);
  });
});

test('set for several classes at once: for each as a whole, in all or in none', async () => {
  const other = await makeClass(teacher, 'Evening', tomas);
  const third = await makeClass(ines, 'Not theirs');
  const inOther = async (who: Client) =>
    (await who.send<ClassAssignments>('GET', `/api/classes/${other}/assignments`)).body.assignments[0];
  const group = v7();
  await teacher.send('PUT', `/api/classes/${id}/groups`, {
    version: 0,
    groups: [{ id: group, name: 'One', personIds: [ines.me.id] }],
  });
  const asked = { instructions: 'Read it.', answers: 2, groupIds: [group] };
  expect((await put({ ...asked, alsoIn: [other, third] })).status).toBe(404);
  expect([await setFor(teacher), await inOther(teacher)]).toEqual([undefined, undefined]);
  expect((await put({ ...asked, alsoIn: [other, id] })).status).toBe(200);
  expect(await inOther(tomas)).toMatchObject({ instructions: 'Read it.', expected: { answers: 2 }, groups: [] });
  expect((await setFor(ines))?.groups).toEqual([{ id: group, name: 'One' }]);
  // The same once more, as when the answer was lost.
  expect((await put({ ...asked, alsoIn: [other] })).status).toBe(200);
  expect((await inOther(teacher))?.version).toBe(1);
  const mark = v7();
  await tomas.send('PUT', `/api/annotations/${mark}`, tideMark(sourceId, versionId, { classIds: [other] }));
  expect([await sees(tomas), await sees(ines), await sees(teacher)]).toEqual([[mark], [], [mark]]);
  const again = await put<Problem>({ ...asked, answers: 3, version: 1, alsoIn: [other] });
  expect([again.status, again.body.code, (await setFor(teacher))?.expected.answers]).toEqual([409, 'set_already', 2]);
});
