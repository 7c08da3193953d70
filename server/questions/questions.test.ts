import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import Papa from 'papaparse';
import { v7 } from 'uuid';
import type {
  Assignment,
  AssignmentDetail,
  Desk,
  Problem,
  Question,
  QuestionResponse,
  StudentResponse,
} from '@avrelle/core/wire';
import { told } from '../events/messages';
import { makeClass, makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { tideMark } from '../testing/tide-mark';

let server: Server;
let teacher: Client;
let ines: Client;
let tomas: Client;
let stranger: Client;
let now = '2026-10-20T08:00:00.000Z';
let id: string;
let sourceId: string;
let versionId: string;
let mark: string;
beforeAll(async () => {
  server = await startServer({ now: () => now });
  [teacher, ines, tomas, stranger] = (await Promise.all(
    ['Teacher', 'Ines', 'Tomas', 'Stranger'].map((name) => server.person(name)),
  )) as [Client, Client, Client, Client];
});
afterAll(() => server.close());
beforeEach(async () => {
  now = '2026-10-20T08:00:00.000Z';
  ({ id, sourceId, versionId } = await makeReadingClass(teacher, ines, tomas));
  mark = await note(teacher);
});

async function note(by: Client, more: object = {}): Promise<string> {
  const made = v7();
  const put = tideMark(sourceId, versionId, { note: 'When does it turn?', classIds: [id], ...more });
  await by.send('PUT', `/api/annotations/${made}`, put);
  return made;
}

const CHOICE = { form: 'one', choices: ['At six', 'At seven'], right: [1], model: 'It says so.' };
const ask = (put: object, of = mark, by = teacher) =>
  by.send<Question & Problem>('PUT', `/api/annotations/${of}/question`, put);
const answer = (by: Client, put: object, to = mark) =>
  by.send<Question & Problem>('PUT', `/api/annotations/${to}/response`, put);
const show = (shown: boolean, by = teacher) =>
  by.send<Question & Problem>('PUT', `/api/classes/${id}/questions/${mark}/shown`, { shown });
const seenBy = async (who: Client): Promise<readonly Question[]> =>
  (await who.send<Question[]>('GET', `/api/sources/${sourceId}/questions`)).body;
const oneSeenBy = async (who: Client): Promise<Question> => (await seenBy(who))[0]!;
const set = (more: object) =>
  teacher.send<Assignment>('PUT', `/api/classes/${id}/assignments/${sourceId}`, {
    instructions: 'Answer.',
    questions: true,
    ...more,
  });

test('who is asked sees nothing of what is right, nor of others, before the answers are shown', async () => {
  await ask({ ...CHOICE, answersShown: 'by_hand' });
  const before = await oneSeenBy(ines);
  expect(before).toMatchObject({ isForMe: true, isOpen: true, isMine: false, key: null, response: null });
  expect(before.classes).toEqual([{ id, shownAt: null, dueAt: null, results: null }]);
  const given = (await answer(ines, { choices: [1] })).body;
  expect([given.response?.choices, given.response?.isRight, given.key]).toEqual([[1], null, null]);
  expect(JSON.stringify(given)).not.toContain('It says so');
  await answer(tomas, { choices: [1] });
  await answer(tomas, { choices: [0] });
  expect((await oneSeenBy(ines)).classes[0]!.results).toBeNull();

  const { results } = (await oneSeenBy(teacher)).classes[0]!;
  expect(results).toEqual({ students: 2, answered: 2, right: 1, byChoice: [1, 1], numbers: [], words: [] });
  expect((await show(true, ines)).body.code).toBe('teachers_only');
  await show(true);
  const after = await oneSeenBy(ines);
  expect(after).toMatchObject({
    isOpen: false,
    key: { right: [1], model: 'It says so.' },
    response: { isRight: true },
  });
  expect(after.classes[0]!.results?.byChoice).toEqual([1, 1]);
  expect((await oneSeenBy(tomas)).response?.isRight).toBe(false);
  // Taken back, it can be answered again.
  await show(false);
  expect(await oneSeenBy(ines)).toMatchObject({ isOpen: true, key: null });
  expect((await answer(ines, { choices: [0] })).status).toBe(200);
});

test('after one’s own, the first answer is the last; sent again it is no second one', async () => {
  await ask({ ...CHOICE, answersShown: 'after_own' });
  expect((await answer(ines, { choices: [0] })).body).toMatchObject({
    isOpen: false,
    response: { isRight: false },
    key: { right: [1] },
  });
  expect((await answer(ines, { choices: [0] })).status).toBe(200);
  expect((await answer(ines, { choices: [1] })).body.code).toBe('answers_shown');
  expect(await oneSeenBy(tomas)).toMatchObject({ isOpen: true, key: null });
});

test('after it is due: for each at their own time, and late answers are none', async () => {
  const dueAt = '2026-10-20T16:00:00.000Z';
  await set({ dueAt });
  await ask({ ...CHOICE, answersShown: 'after_due' });
  await teacher.send('PUT', `/api/classes/${id}/assignments/${sourceId}/extensions/${tomas.me.id}`, {
    dueAt: '2026-10-21T16:00:00.000Z',
  });
  const left = async (who: Client): Promise<number | undefined> =>
    (await who.send<Assignment[]>('GET', `/api/assignments?source=${sourceId}`)).body[0]!.missing?.questions;
  const onDesk = async (who: Client): Promise<number> =>
    (await who.send<Desk>('GET', '/api/desk')).body.questions
      .filter((q) => q.source.id === sourceId)
      .reduce((sum, q) => sum + q.count, 0);
  expect([await left(ines), await onDesk(ines), await onDesk(teacher)]).toEqual([1, 1, 0]);
  await answer(ines, { choices: [1] });
  expect([await left(ines), await onDesk(ines), await left(tomas)]).toEqual([0, 0, 1]);
  now = dueAt;
  expect([(await oneSeenBy(ines)).isOpen, (await oneSeenBy(tomas)).isOpen]).toEqual([false, true]);
  await answer(tomas, { choices: [1] });
  now = '2026-10-22T08:00:00.000Z';
  expect((await answer(tomas, { choices: [0] })).body.code).toBe('answers_shown');
  const detail = (await teacher.send<AssignmentDetail>('GET', `/api/classes/${id}/assignments/${sourceId}`)).body;
  expect(detail.students.map((s) => [s.name, s.questions, s.missing.questions])).toEqual([
    ['Ines', 1, 0],
    ['Tomas', 1, 0],
  ]);
  expect([detail.expected.questions, detail.progress?.done]).toEqual([1, 2]);
});

test('shown by hand, an answer after the due date counts as late', async () => {
  await set({ dueAt: '2026-10-20T16:00:00.000Z' });
  await ask({ form: 'number', number: 21, tolerance: 1, unit: 'mm', answersShown: 'by_hand' });
  await answer(ines, { number: 20 });
  now = '2026-10-20T17:00:00.000Z';
  await answer(tomas, { number: 30 });
  const url = `/api/classes/${id}/questions/${mark}/responses`;
  const { body } = await teacher.send<StudentResponse[]>('GET', url);
  const summed = body.map(({ name, late, response }) => [name, late, response?.number, response?.isRight]);
  expect(summed).toEqual([
    ['Ines', false, 20, true],
    ['Tomas', true, 30, false],
  ]);
  expect((await ines.send<Problem>('GET', url)).body.code).toBe('teachers_only');
});

test('what was shown before one answered is asked of one no more; who answered has done it', async () => {
  await set({ dueAt: '2026-10-20T16:00:00.000Z' });
  await ask({ ...CHOICE, answersShown: 'by_hand' });
  await answer(ines, { choices: [1] });
  await show(true);
  const url = `/api/classes/${id}/assignments/${sourceId}`;
  const { students } = (await teacher.send<AssignmentDetail>('GET', url)).body;
  expect(students.map((s) => [s.name, s.questions, s.missing.questions])).toEqual([
    ['Ines', 1, 0],
    ['Tomas', 0, 0],
  ]);
});

test('all answers as a table, read back: one line for each student and question', async () => {
  await ask({ ...CHOICE, form: 'several', right: [0, 1], answersShown: 'by_hand' });
  await answer(ines, { choices: [1, 0] });
  const open = await note(teacher, { note: 'Why, "then"?' });
  await ask({ form: 'open' }, open);
  await answer(tomas, { words: '=1+1, or\nmore' }, open);
  const { text } = await teacher.send('GET', `/api/classes/${id}/answers.csv`);
  const { data } = Papa.parse<Record<string, string>>(text, { header: true });
  expect(data.map((row) => [row.question, row.student, row.answer, row.right, row.late])).toEqual([
    ['When does it turn?', 'Ines', 'At six; At seven', 'yes', 'no'],
    ['When does it turn?', 'Tomas', '', '', ''],
    ['Why, "then"?', 'Ines', '', '', ''],
    // A spreadsheet takes it for words.
    ['Why, "then"?', 'Tomas', "'=1+1, or\nmore", '', 'no'],
  ]);
});

test('in words: who teaches reads whose they are, the others read them without names', async () => {
  await ask({ form: 'open', model: 'The moon.', answersShown: 'by_hand' });
  await answer(ines, { words: 'The sun?' });
  await answer(tomas, { words: 'The moon.' });
  await show(true);
  const seen = await oneSeenBy(ines);
  expect(seen.classes[0]!.results?.words).toEqual(['The moon.', 'The sun?']);
  expect(JSON.stringify(seen)).not.toContain('Tomas');
});

test('only its author asks, where they teach; whoever is not asked does not answer', async () => {
  expect((await ask(CHOICE, mark, ines)).body.code).toBe('not_yours');
  expect((await ask(CHOICE, await note(ines), ines)).body.code).toBe('teachers_only');
  expect((await ask(CHOICE, await note(teacher, { teachersOnly: true }))).body.code).toBe('asks_nobody');
  await ask(CHOICE);
  expect((await answer(teacher, { choices: [0] })).body.code).toBe('not_asked');
  expect((await answer(stranger, { choices: [0] })).status).toBe(404);
  for (const wrong of [{ choices: [] }, { choices: [2] }, { choices: [0, 1] }, { words: 'At six' }])
    expect((await answer(ines, wrong)).body.code).toBe('no_answer');
});

test('a held question is seen by nobody who is asked, until it is released', async () => {
  const held = await note(teacher, { held: true });
  await ask(CHOICE, held);
  const seen = async () => (await seenBy(ines)).filter((q) => q.id === held).length;
  expect([await seen(), (await answer(ines, { choices: [0] }, held)).status]).toEqual([0, 404]);
  const results = async () => (await seenBy(teacher)).find((q) => q.id === held)!.classes[0]!.results;
  expect((await results())!.students).toBe(0);
  await teacher.send('POST', `/api/classes/${id}/held/release`, { annotationIds: [held] });
  expect([await seen(), (await results())!.students]).toEqual([1, 2]);
});

test('in an archived class nothing is answered any more', async () => {
  await ask(CHOICE);
  await teacher.send('PUT', `/api/classes/${id}/archived`, { archived: true });
  expect((await answer(ines, { choices: [0] })).body.code).toBe('class_archived');
});

test('who leaves is counted no more, and sees nothing of it', async () => {
  await ask({ ...CHOICE, answersShown: 'after_own' });
  await answer(ines, { choices: [1] });
  await ines.send('DELETE', `/api/classes/${id}/membership`);
  expect((await oneSeenBy(teacher)).classes[0]!.results).toMatchObject({ students: 1, answered: 0, right: 0 });
  expect((await ines.send('GET', `/api/sources/${sourceId}/questions`)).status).toBe(404);
  expect((await answer(ines, { choices: [0] })).status).toBe(404);
});

test('two classes that are asked do not see each other’s counts', async () => {
  const other = await makeClass(teacher, 'Other', stranger);
  await teacher.send('PUT', `/api/classes/${other}/sources/${sourceId}`);
  const both = await note(teacher, { classIds: [id, other] });
  await ask({ ...CHOICE, answersShown: 'after_own' }, both);
  await answer(ines, { choices: [1] }, both);
  await answer(stranger, { choices: [0] }, both);
  const seen = async (who: Client) =>
    (await seenBy(who)).find((q) => q.id === both)!.classes.map((c) => [c.id, c.results?.byChoice]);
  expect(await seen(ines)).toEqual([[id, [0, 1]]]);
  expect(await seen(stranger)).toEqual([[other, [1, 0]]]);
  expect(await seen(teacher)).toHaveLength(2);
});

test('what has been answered stays what was asked; withdrawn and asked again, the answers are there', async () => {
  await ask({ ...CHOICE, answersShown: 'by_hand' });
  await answer(ines, { choices: [0] });
  expect((await ask({ ...CHOICE, version: 1, choices: ['At six', 'At eight'] })).body.code).toBe('answered_already');
  expect((await ask({ ...CHOICE })).body.code).toBe('stale');
  expect((await ask({ ...CHOICE, version: 1, right: [0] })).status).toBe(200);
  expect((await oneSeenBy(teacher)).classes[0]!.results?.right).toBe(1);
  await teacher.send('DELETE', `/api/annotations/${mark}/question`);
  expect([await seenBy(ines), (await answer(ines, { choices: [1] })).status]).toEqual([[], 404]);
  await ask({ ...CHOICE, right: [0] });
  const { response } = (await oneSeenBy(ines)) as { response: QuestionResponse };
  expect(response.choices).toEqual([0]);
});

test('what cannot be asked is said at its field', async () => {
  for (const [put, field] of [
    [{ form: 'one', choices: ['At six'] }, 'choices'],
    [{ form: 'several', choices: ['At six', 'At six'] }, 'choices'],
    [{ ...CHOICE, right: [0, 1] }, 'right'],
    [{ ...CHOICE, right: [2] }, 'right'],
    [{ form: 'number', tolerance: -1 }, 'tolerance'],
    [{ form: 'essay' }, 'form'],
  ] as const)
    expect((await ask(put)).body).toMatchObject({ code: 'invalid', field });
});

test('students hear of what is asked, who teaches of what is answered, no other student', async () => {
  const { db, events } = server.context;
  const heard = (since: number) =>
    [teacher, ines, tomas, stranger].map(
      (who) =>
        events
          .since(since, 100)
          .flatMap((event) => told(db, event)(who.me.id) ?? [])
          .filter((data) => data.includes('questions')).length,
    );
  let since = events.seqOf(events.cursor())!;
  await ask(CHOICE);
  expect(heard(since)).toEqual([1, 1, 1, 0]);
  since = events.seqOf(events.cursor())!;
  await answer(ines, { choices: [0] });
  expect(heard(since)).toEqual([1, 1, 0, 0]);
});
