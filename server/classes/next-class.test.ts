import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Assignment, ClassDetail, ClassRow, Legends, Problem, SourcePage } from '@avrelle/core/wire';
import { makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { tideMark } from '../testing/tide-mark';

let server: Server;
let teacher: Client;
let ines: Client;
let id: string;
let sourceId: string;
let versionId: string;
beforeAll(async () => {
  server = await startServer();
  teacher = await server.person('Teacher');
  ines = await server.person('Ines');
});
afterAll(() => server.close());
beforeEach(async () => {
  ({ id, sourceId, versionId } = await makeReadingClass(teacher, ines));
});

const ZONE = 'Europe/Berlin';
const OWN_KIND = { code: v7(), name: 'Rumour', pigment: 'walnut', line: 'wavy', sign: '~' };
const setReading = async (more: object): Promise<void> => {
  const url = `/api/classes/${id}/assignments/${sourceId}`;
  expect((await teacher.send('PUT', url, { instructions: 'Mark *two* claims.', ...more })).status).toBe(200);
};
const begin = async (more: object = {}, who = teacher) => {
  const body = { id: v7(), name: 'Field Course, next', tint: 'moss', weeks: 52, zone: ZONE, ...more };
  return { id: body.id, ...(await who.send<Problem>('POST', `/api/classes/${id}/next`, body)) };
};
const detail = async (of: string): Promise<ClassDetail> =>
  (await teacher.send<ClassDetail>('GET', `/api/classes/${of}`)).body;
const setIn = async (of: string): Promise<Assignment> =>
  (await teacher.send<{ assignments: Assignment[] }>('GET', `/api/classes/${of}/assignments`)).body.assignments[0]!;

test('the next class reads the same, with what is asked for, at the same time of day, and nobody in it', async () => {
  // Around the end of summer time in Berlin: 25 October 2026 and 31 October 2027 (tz database).
  await setReading({ dueAt: '2026-10-28T16:00:00.000Z', othersSeen: 'after_due', answers: 1, questions: true });
  await ines.send('PUT', `/api/annotations/${v7()}`, tideMark(sourceId, versionId, { note: 'Why?', classIds: [id] }));
  const next = await begin();
  expect(next.status).toBe(200);
  const { members, readings, annotations, name } = await detail(next.id);
  expect([name, members.map((m) => m.name), readings.map((r) => r.id), annotations]).toEqual([
    'Field Course, next',
    ['Teacher'],
    [sourceId],
    0,
  ]);
  expect(await setIn(next.id)).toMatchObject({
    instructions: 'Mark *two* claims.',
    expected: { marks: [], answers: 1 },
    // 17:00 by winter time, then by summer time.
    dueAt: '2027-10-27T15:00:00.000Z',
    opensAt: null,
    othersSeen: 'after_due',
    questions: true,
    progress: { students: 0 },
  });
  expect((await ines.send('GET', `/api/classes/${next.id}`)).status).toBe(404);
});

test('without dates what was to be shown after one waits for a teacher; the same again is the same class', async () => {
  await setReading({ dueAt: '2026-10-28T16:00:00.000Z', othersSeen: 'after_due' });
  const next = await begin({ weeks: null });
  expect(await setIn(next.id)).toMatchObject({ dueAt: null, othersSeen: 'after_release' });
  expect([(await begin({ id: next.id })).status, (await setIn(next.id)).dueAt]).toEqual([200, null]);
  expect((await begin({ id: next.id }, ines)).status).toBe(403);
  expect((await begin({ zone: 'Saltmere/Marsh' })).body.field).toBe('zone');
});

test('its Legend is its own: the same kinds, and what is asked for in them', async () => {
  const legend = [OWN_KIND, { ...OWN_KIND, code: v7(), name: 'Proof', sign: '!' }];
  expect((await teacher.send<Problem>('PUT', `/api/legends/${id}`, { version: 0, kinds: legend })).body).toMatchObject({
    version: 1,
  });
  await setReading({
    marks: [
      { kind: OWN_KIND.code, count: 2 },
      { kind: 'claim', count: 1 },
    ],
  });
  const next = await begin();
  const { classes } = (await teacher.send<Legends>('GET', '/api/legends')).body;
  const { kinds } = classes.find(({ ownerId }) => ownerId === next.id)!;
  expect(kinds.map(({ name, sign }) => [name, sign])).toEqual(legend.map((kind) => [kind!.name, kind!.sign]));
  expect(kinds.map(({ code }) => legend.some((kind) => kind.code === code))).toEqual([false, false]);
  expect((await setIn(next.id)).expected.marks).toEqual([
    { kind: kinds[0]!.code, name: 'Rumour', count: 2 },
    { kind: 'claim', name: 'Claim', count: 1 },
  ]);
});

test('an archived class is seen as it was; nothing is written, set, due or joined until it goes on', async () => {
  const archive = (archived: boolean, who = teacher) => who.send('PUT', `/api/classes/${id}/archived`, { archived });
  const mark = v7();
  const put = (annotation: string) =>
    ines.send('PUT', `/api/annotations/${annotation}`, tideMark(sourceId, versionId, { note: 'Why?', classIds: [id] }));
  await put(mark);
  await setReading({ dueAt: '2030-10-28T16:00:00.000Z' });
  const dueFor = async (): Promise<readonly number[]> => [
    (await ines.send<Assignment[]>('GET', '/api/assignments')).body.filter((a) => a.class.id === id).length,
    (await ines.send<SourcePage>('GET', '/api/sources?q=due:2030')).body.sources.filter((s) => s.id === sourceId)
      .length,
  ];
  expect(await dueFor()).toEqual([1, 1]);
  const { code } = await detail(id);
  expect([(await archive(true, ines)).status, (await archive(true)).status]).toEqual([403, 204]);

  const rows = (await ines.send<ClassRow[]>('GET', '/api/classes')).body;
  expect(rows.find((row) => row.id === id)?.archivedAt).toEqual(expect.any(String));
  expect((await teacher.send<unknown[]>('GET', `/api/sources/${sourceId}/annotations`)).body).toHaveLength(1);
  expect([await dueFor(), (await setIn(id)).dueAt]).toEqual([[0, 0], '2030-10-28T16:00:00.000Z']);
  const oma = await server.person(`Oma ${id}`);
  const other = await teacher.keepText(`other ${id}`, `Another text. ${id}`);
  const codes = [
    await put(v7()),
    await teacher.send('PUT', `/api/replies/${v7()}`, { parentId: mark, note: 'Because.' }),
    await teacher.send('PUT', `/api/classes/${id}/sources/${other}`),
    await teacher.send('DELETE', `/api/classes/${id}/sources/${sourceId}`),
    await teacher.send('PUT', `/api/classes/${id}/assignments/${sourceId}`, {}),
    await teacher.send('POST', `/api/classes/${id}/code`),
    await oma.send('POST', '/api/classes/join', { code }),
  ].map(({ status, body }) => [status, (body as Problem).code]);
  expect(codes).toEqual([...Array<unknown>(6).fill([409, 'class_archived']), [404, 'wrong_code']]);

  await archive(false);
  expect((await put(v7())).status).toBe(200);
  expect((await oma.send('POST', '/api/classes/join', { code })).status).toBe(200);
});
