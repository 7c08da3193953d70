import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type {
  Annotation,
  AnnotationPage,
  Assignment,
  AssignmentDetail,
  ClassDetail,
  ClassRow,
  Problem,
  SourcePage,
} from '@avrelle/core/wire';
import { told } from '../events/messages';
import { makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { tideMark } from '../testing/tide-mark';

let server: Server;
let teacher: Client;
/** In the first group, the first, the second, and none. */
let ines: Client;
let tomas: Client;
let priya: Client;
let kit: Client;
let id: string;
let sourceId: string;
let versionId: string;
let first: string;
let second: string;
beforeAll(async () => {
  server = await startServer();
  [teacher, ines, tomas, priya, kit] = (await Promise.all(
    ['Teacher', 'Ines', 'Tomas', 'Priya', 'Kit'].map((name) => server.person(name)),
  )) as [Client, Client, Client, Client, Client];
});
afterAll(() => server.close());

const group = (who: Client, groups: readonly object[], version = 0) =>
  who.send<{ version: number } & Problem>('PUT', `/api/classes/${id}/groups`, { version, groups });
const idsOf = (...people: readonly Client[]): string[] => people.map(({ me }) => me.id);
beforeEach(async () => {
  ({ id, sourceId, versionId } = await makeReadingClass(teacher, ines, tomas, priya, kit));
  [first, second] = [v7(), v7()];
  const made = [
    { id: first, name: 'Mud', personIds: idsOf(ines, tomas) },
    { id: second, name: 'Salt', personIds: idsOf(priya) },
  ];
  expect((await group(teacher, made)).body).toEqual({ version: 1 });
});

const put = (who: Client, mark: string, more: object = {}) =>
  who.send<Annotation & Problem>(
    'PUT',
    `/api/annotations/${mark}`,
    tideMark(sourceId, versionId, { note: 'Why at seven?', classIds: [id], groupIds: [first], ...more }),
  );
const change = (who: Client, mark: string, patch: object) =>
  who.send<Annotation & Problem>('PATCH', `/api/annotations/${mark}`, patch);
const seenBy = async (who: Client): Promise<readonly Annotation[]> =>
  (await who.send<Annotation[]>('GET', `/api/sources/${sourceId}/annotations`)).body;
const foundBy = async (who: Client, q = 'seven'): Promise<number> =>
  (await who.send<AnnotationPage>('GET', `/api/annotations?q=${encodeURIComponent(q)}`)).body.annotations.filter(
    (a) => a.sourceId === sourceId,
  ).length;
/** Who sees how many, in the text and by searching. */
const seen = async (): Promise<readonly number[]> => {
  const people = [teacher, ines, tomas, priya, kit];
  const counts = await Promise.all(
    people.map(async (who) => [(await seenBy(who)).length, await foundBy(who)] as const),
  );
  for (const [inText, found] of counts) expect(found).toBe(inText);
  return counts.map(([inText]) => inText);
};

test('a note for a group is seen by it and by who teaches, in the text and by searching; so are answers', async () => {
  const mark = v7();
  const { body } = await put(ines, mark);
  expect([body.classIds, body.groups]).toEqual([[id], [{ classId: id, groupId: first, name: 'Mud' }]]);
  expect(await seen()).toEqual([1, 1, 1, 0, 0]);
  expect([await foundBy(tomas, 'in:"Field Course"'), await foundBy(priya, 'in:"Field Course"')]).toEqual([1, 0]);
  const reply = await tomas.send<Annotation>('PUT', `/api/replies/${v7()}`, {
    parentId: mark,
    note: 'At seven sharp.',
  });
  expect(reply.body.groups).toEqual(body.groups);
  expect((await priya.send('PUT', `/api/replies/${v7()}`, { parentId: mark, note: 'May I?' })).status).toBe(404);
  expect(await seen()).toEqual([2, 2, 2, 0, 0]);
  const { annotations } = (await priya.send<ClassDetail>('GET', `/api/classes/${id}`)).body;
  expect(annotations).toBe(0);
});

test('students write for their own group, who teaches for any; nobody for a group of another class', async () => {
  expect((await put(priya, v7())).body.code).toBe('not_in_group');
  expect((await put(kit, v7())).body.code).toBe('not_in_group');
  expect((await put(teacher, v7())).status).toBe(200);
  expect((await put(ines, v7(), { classIds: [] })).body.code).toBe('not_in_group');
  expect((await put(teacher, v7(), { groupIds: [first, second] })).status).toBe(400);
  const rows = async (who: Client) =>
    (await who.send<ClassRow[]>('GET', '/api/classes')).body.find((row) => row.id === id)!.groups.map((g) => g.name);
  expect([await rows(teacher), await rows(priya), await rows(kit)]).toEqual([['Mud', 'Salt'], ['Salt'], []]);
});

test('for the whole class and back; what changes nothing of it keeps the group', async () => {
  const mark = v7();
  await put(ines, mark);
  let { version } = (await change(ines, mark, { version: 1, classIds: [id] })).body;
  expect(await seen()).toEqual([1, 1, 1, 0, 0]);
  ({ version } = (await change(ines, mark, { version, groupIds: [] })).body);
  expect(await seen()).toEqual([1, 1, 1, 1, 1]);
  ({ version } = (await change(ines, mark, { version, classIds: [], groupIds: [] })).body);
  ({ version } = (await change(ines, mark, { version, classIds: [id], groupIds: [first] })).body);
  expect(await seen()).toEqual([1, 1, 1, 0, 0]);
  await change(ines, mark, { version, teachersOnly: true, groupIds: [] });
  expect(await seen()).toEqual([1, 1, 0, 0, 0]);
});

test('held and released, it is shown to its group alone, and only they are told', async () => {
  const mark = v7();
  await put(teacher, mark, { held: true });
  expect(await seen()).toEqual([1, 0, 0, 0, 0]);
  await teacher.send('POST', `/api/classes/${id}/held/release`, { annotationIds: [mark] });
  expect(await seen()).toEqual([1, 1, 1, 0, 0]);
  const toldOf = async (who: Client): Promise<number> =>
    (await who.send<{ notices: { sourceId: string }[] }>('GET', '/api/desk?day=2026-10-01')).body.notices.filter(
      (n) => n.sourceId === sourceId,
    ).length;
  expect(await Promise.all([ines, priya, kit].map(toldOf))).toEqual([1, 0, 0]);
});

test('who changes groups sees what the new one sees; a dissolved one leaves its notes to their authors', async () => {
  const mark = v7();
  await put(ines, mark);
  await put(priya, v7(), { groupIds: [second] });
  const moved = [
    { id: first, name: 'Mud', personIds: idsOf(ines) },
    { id: second, name: 'Salt', personIds: idsOf(priya, tomas) },
  ];
  expect((await group(teacher, moved, 0)).body.code).toBe('stale');
  expect((await group(ines, moved, 1)).body.code).toBe('teachers_only');
  expect((await group(teacher, moved, 1)).status).toBe(200);
  expect(await seen()).toEqual([2, 1, 1, 1, 0]);
  await group(teacher, [], 2);
  expect(await seen()).toEqual([2, 1, 0, 1, 0]);
  const again = await group(teacher, moved, 3);
  expect([again.status, await seen()]).toEqual([200, [2, 1, 1, 1, 0]]);
  const other = await makeReadingClass(teacher);
  const foreign = await teacher.send('PUT', `/api/classes/${other.id}/groups`, { version: 0, groups: moved });
  expect(foreign.status).toBe(404);
});

test('who leaves is in no group; a class that comes back has its groups', async () => {
  const mark = v7();
  await put(ines, mark);
  await teacher.send('DELETE', `/api/classes/${id}`);
  await teacher.send('POST', `/api/classes/${id}/restore`);
  expect(await seen()).toEqual([1, 1, 1, 0, 0]);
  await tomas.send('DELETE', `/api/classes/${id}/membership`);
  const { code } = (await teacher.send<ClassDetail>('GET', `/api/classes/${id}`)).body;
  await tomas.send('POST', '/api/classes/join', { code });
  expect(await seen()).toEqual([1, 1, 0, 0, 0]);
});

test('a reading set for a group asks nothing of the others, and withholds nothing from them', async () => {
  const url = `/api/classes/${id}/assignments/${sourceId}`;
  const dueAt = '2030-10-28T16:00:00.000Z';
  const set = {
    instructions: 'Mark.',
    dueAt,
    othersSeen: 'after_own',
    marks: [{ kind: null, count: 1 }],
    groupIds: [first],
  };
  expect((await teacher.send<Problem>('PUT', url, { groupIds: [v7()] })).body.code).toBe('not_in_group');
  const { body } = await teacher.send<Assignment>('PUT', url, set);
  expect([body.groups, body.progress?.students]).toEqual([[{ id: first, name: 'Mud' }], 2]);
  const detail = (await teacher.send<AssignmentDetail>('GET', url)).body;
  expect(detail.students.map((s) => s.name)).toEqual(['Ines', 'Tomas']);
  const setFor = async (who: Client): Promise<number> =>
    (await who.send<Assignment[]>('GET', '/api/assignments')).body.filter((a) => a.source.id === sourceId).length;
  expect(await Promise.all([teacher, ines, priya, kit].map(setFor))).toEqual([1, 1, 0, 0]);
  // Priya gives nothing of her own, and sees what Kit wrote for the class; Ines has to give hers first.
  await put(kit, v7(), { groupIds: [] });
  expect(await seen()).toEqual([1, 0, 0, 1, 1]);
  const dueFor = async (who: Client): Promise<boolean> =>
    (await who.send<SourcePage>('GET', '/api/sources?q=due:2030')).body.sources.some((s) => s.id === sourceId);
  expect(await Promise.all([teacher, ines, priya, kit].map(dueFor))).toEqual([true, true, false, false]);
});

test('an open page is told by the group: who sees it no more is told so, others hear of nothing', async () => {
  const mark = v7();
  await put(ines, mark);
  const { db, events } = server.context;
  const before = events.seqOf(events.cursor())!;
  const { version } = (await seenBy(ines))[0]!;
  await change(ines, mark, { version, classIds: [], groupIds: [] });
  const heard = (who: Client): string[] =>
    events
      .since(before, 100)
      .flatMap((event) => told(db, event)(who.me.id) ?? [])
      .map((data) => (JSON.parse(data) as { type: string }).type)
      .filter((type) => type === 'annotation' || type === 'gone');
  expect([ines, tomas, priya, kit].map(heard)).toEqual([['annotation'], ['gone'], [], []]);
});
