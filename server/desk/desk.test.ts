import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { ClassId, ClassJoining, Desk, DeskNotice, SourceDetail } from '@avrelle/core/wire';
import { makeClass, makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { dayBefore } from './day-before';

let server: Server;
let me: Client;
beforeAll(async () => {
  server = await startServer();
  me = await server.person('Reader');
});
afterAll(() => server.close());

test('the same day a while ago, in months that are shorter as well', () => {
  expect([
    dayBefore('2026-11-25', { days: 7 }),
    dayBefore('2026-03-31', { months: 1 }),
    dayBefore('2026-01-15', { months: 1 }),
    dayBefore('2024-02-29', { months: 12 }),
  ]).toEqual(['2026-11-18', '2026-02-28', '2025-12-15', '2023-02-28']);
});

test('the desk has something for a spare moment, and what was marked on this day before', async () => {
  const empty = (await me.send<Desk>('GET', '/api/desk')).body;
  expect([empty.begun, empty.waiting, empty.spare, empty.past]).toEqual([false, 0, null, null]);
  const long = await me.keepText('long', 'Many words of mud. '.repeat(2_000));
  const short = await me.keepText('short', 'A few words of mud.');
  const source = (await me.send<SourceDetail>('GET', `/api/sources/${long}`)).body;
  const id = v7();
  await me.send('PUT', `/api/annotations/${id}`, {
    sourceId: long,
    versionId: source.versionId,
    kind: 'claim',
    note: 'then',
    tags: [],
    anchor: { quote: { exact: 'Many', prefix: '', suffix: '' }, position: { start: 0, end: 4 } },
    classIds: [],
  });
  const today = new Date().toISOString().slice(0, 10);
  const desk = async () => (await me.send<Desk>('GET', `/api/desk?day=${today}`)).body;
  const { begun, waiting, spare, past } = await desk();
  expect([begun, waiting, spare?.id, past]).toEqual([true, 2, short, null]);
  server.context.db.run(
    'UPDATE annotation SET created_at = ? WHERE id = ?',
    `${dayBefore(today, { months: 1 })}T09:00:00.000Z`,
    id,
  );
  expect((await desk()).past).toMatchObject({ ago: 'a month', annotations: [{ id }] });
  // Late in the evening by UTC it is the next day already for somebody whose clocks are ahead.
  server.context.db.run(
    'UPDATE annotation SET created_at = ? WHERE id = ?',
    `${dayBefore(today, { months: 1 })}T23:30:00.000Z`,
    id,
  );
  const ahead = async (minutes: number) =>
    (await me.send<Desk>('GET', `/api/desk?day=${today}&ahead=${minutes}`)).body.past?.ago;
  expect([await ahead(0), await ahead(-300), await ahead(60)]).toEqual(['a month', 'a month', undefined]);
});

describe('what happens in a class is told to its students', () => {
  const told = async (who: Client): Promise<DeskNotice[]> =>
    (await who.send<Desk>('GET', '/api/desk')).body.notices.filter((n) => n.class !== undefined);
  const why = async (who: Client) => (await told(who)).map((n) => [n.why, n.seen]);
  const SET = {
    instructions: '',
    marks: [{ kind: null, count: 1 }],
    answers: 0,
    opensAt: null,
    dueAt: null,
    othersSeen: 'at_once',
    comments: true,
    questions: false,
    groupIds: [],
  };
  let teacher: Client;
  let ines: Client;
  let cal: Client;
  beforeAll(async () => {
    teacher = await server.person('Teacher');
    ines = await server.person('Ines Kestle');
    cal = await server.person('Cal Merrow');
  });

  test('that one was let in, by whom and where; not once one has left', async () => {
    const id = await makeClass(teacher, 'Field Course');
    await teacher.send('PUT', `/api/classes/${id}/joining`, { joining: 'asked', askable: false });
    const { code } = (await teacher.send<{ code: string }>('GET', `/api/classes/${id}`)).body;
    await ines.send('POST', '/api/classes/join', { code });
    expect(await told(ines)).toEqual([]);
    const { requests } = (await teacher.send<ClassJoining>('GET', `/api/classes/${id}/joining`)).body;
    await teacher.send('PUT', `/api/classes/${id}/requests/${requests[0]!.id}`, { letIn: true });
    expect(await told(ines)).toMatchObject([
      { why: 'let_in', actor: 'Teacher', class: { id, name: 'Field Course' }, sourceId: null, seen: false },
    ]);
    await teacher.send('DELETE', `/api/classes/${id}/members/${ines.me.id}`);
    expect(await told(ines)).toEqual([]);
  });

  test('that a reading is set, once it is open, and changed; not who taught it, nor what is taken back', async () => {
    const { id, sourceId } = await makeReadingClass(teacher, ines);
    const url = `/api/classes/${id}/assignments/${sourceId}`;
    const later = new Date(Date.now() + 3_600_000).toISOString();
    const put = async (more: object) => expect((await teacher.send('PUT', url, { ...SET, ...more })).status).toBe(200);
    await put({ opensAt: later });
    expect([await told(ines), await told(teacher)]).toEqual([[], []]);
    await ines.send('POST', '/api/desk/seen');
    await put({ version: 1 });
    // Nobody had seen it before.
    expect(await why(ines)).toEqual([['set', false]]);
    await ines.send('POST', '/api/desk/seen');
    // The same once more is no change.
    await put({});
    expect(await why(ines)).toEqual([['set', true]]);
    await put({ version: 2, instructions: 'Read it twice.' });
    expect(await told(ines)).toMatchObject([{ why: 'changed', seen: false, sourceId, class: { id } }]);
    await teacher.send('DELETE', url);
    expect(await told(ines)).toEqual([]);
  });

  test('a reading that is set for a group is told to that alone', async () => {
    const { id, sourceId } = await makeReadingClass(teacher, ines, cal);
    const group = v7();
    await teacher.send('PUT', `/api/classes/${id}/groups`, {
      version: 0,
      groups: [{ id: group, name: 'One', personIds: [cal.me.id] }],
    });
    await teacher.send('PUT', `/api/classes/${id}/assignments/${sourceId}`, { ...SET, groupIds: [group] });
    expect([await why(ines), await why(cal)]).toEqual([[], [['set', false]]]);
  });

  test('that answers are shown, until that is taken back', async () => {
    const { id, sourceId, versionId } = await makeReadingClass(teacher, cal);
    const before = (await why(cal)).length;
    const question = v7();
    await teacher.send('PUT', `/api/annotations/${question}`, {
      sourceId,
      versionId,
      kind: 'question',
      note: 'When does it turn?',
      tags: [],
      anchor: { quote: { exact: 'The tide', prefix: '', suffix: '' }, position: { start: 0, end: 8 } },
      classIds: [id as ClassId],
    });
    await teacher.send('PUT', `/api/annotations/${question}/question`, { form: 'open', answersShown: 'by_hand' });
    const show = (shown: boolean) => teacher.send('PUT', `/api/classes/${id}/questions/${question}/shown`, { shown });
    await show(true);
    expect((await told(cal))[0]).toMatchObject({
      why: 'shown',
      reply: 'When does it turn?',
      rootId: question,
      class: { id },
    });
    await show(false);
    expect(await why(cal)).toHaveLength(before);
  });
});
