import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Annotation, ClassDetail, ClassRow, SourceDetail } from '@avrelle/core/wire';
import { removeExpired } from '../library/remove-expired';
import { makeClass } from '../testing/classes';
import { tideMark } from '../testing/tide-mark';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let teacher: Client;
let ines: Client;
let oma: Client;
let id: string;
let sourceId: string;
let mark: string;
beforeAll(async () => {
  server = await startServer();
  teacher = await server.person('Teacher');
  ines = await server.person('Ines');
  oma = await server.person('Oma');
});
afterAll(() => server.close());

/** A class of three that reads a text of its teacher's, with a mark that Ines made for it. */
beforeEach(async () => {
  id = await makeClass(teacher, 'Field Course', ines, oma);
  sourceId = await teacher.keepText(`tide ${id}`, `The tide turns at seven. ${id}`);
  await teacher.send('PUT', `/api/classes/${id}/sources/${sourceId}`, {});
  const { versionId } = (await ines.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
  mark = v7();
  const asked = tideMark(sourceId, versionId, { note: 'Why at seven?', classIds: [id] });
  await ines.send('PUT', `/api/annotations/${mark}`, asked);
});

const statusOf = async (who: Client, url: string): Promise<number> => (await who.send('GET', url)).status;
const marksOf = async (who: Client): Promise<string[]> => {
  const { status, body } = await who.send<{ annotations: Annotation[] }>('GET', `/api/sources/${sourceId}/annotations`);
  return status === 200 ? (body.annotations ?? (body as unknown as Annotation[])).map((a) => a.id) : [];
};
const classesOf = async (who: Client): Promise<string[]> =>
  (await who.send<ClassRow[]>('GET', '/api/classes')).body.map((row) => row.id);
const seen = async (who: Client) => [
  (await classesOf(who)).includes(id),
  await statusOf(who, `/api/sources/${sourceId}`),
];

test('who leaves sees no more of the class; what they wrote for it stays there', async () => {
  expect((await ines.send('DELETE', `/api/classes/${id}/membership`)).status).toBe(204);
  expect(await seen(ines)).toEqual([false, 404]);
  expect(await marksOf(oma)).toEqual([mark]);
  expect((await ines.send('DELETE', `/api/classes/${id}/membership`)).status).toBe(404);
});

test('a teacher removes somebody and changes who teaches; nobody else does, and one teacher is always left', async () => {
  const role = (who: Client, of: Client, to: string) =>
    who.send<{ code: string }>('PUT', `/api/classes/${id}/members/${of.me.id}`, { role: to });
  expect((await role(ines, ines, 'teacher')).body.code).toBe('teachers_only');
  expect((await role(teacher, teacher, 'student')).body.code).toBe('last_teacher');
  expect((await role(teacher, ines, 'assistant')).status).toBe(204);
  expect((await role(ines, oma, 'teacher')).body.code).toBe('teachers_only');
  expect((await role(teacher, oma, 'teacher')).status).toBe(204);
  expect((await role(teacher, teacher, 'student')).status).toBe(204);
  expect((await oma.send('DELETE', `/api/classes/${id}/members/${ines.me.id}`)).status).toBe(204);
  expect(await seen(ines)).toEqual([false, 404]);
  expect((await oma.send('DELETE', `/api/classes/${id}/members/${ines.me.id}`)).status).toBe(404);
});

test('a new code ends the one before; closed, nobody joins by either', async () => {
  const code = async (): Promise<string | null> =>
    (await teacher.send<ClassDetail>('GET', `/api/classes/${id}`)).body.code;
  const before = await code();
  const { body } = await teacher.send<{ code: string }>('POST', `/api/classes/${id}/code`);
  expect([await code(), body.code === before]).toEqual([body.code, false]);
  const late = await server.person(`Late ${id}`);
  const join = async (with_: string | null) => (await late.send('POST', '/api/classes/join', { code: with_ })).status;
  expect(await join(before)).toBe(404);
  expect((await ines.send('DELETE', `/api/classes/${id}/code`)).status).toBe(403);
  await teacher.send('DELETE', `/api/classes/${id}/code`);
  expect([await code(), await join(body.code)]).toEqual([null, 404]);
  expect(await join((await teacher.send<{ code: string }>('POST', `/api/classes/${id}/code`)).body.code)).toBe(200);
});

test('a deleted class is gone for all of its members; its teacher brings it back as it was, for thirty days', async () => {
  expect((await ines.send('DELETE', `/api/classes/${id}`)).status).toBe(403);
  const { code } = (await teacher.send<ClassDetail>('GET', `/api/classes/${id}`)).body;
  expect((await teacher.send('DELETE', `/api/classes/${id}`)).status).toBe(204);
  expect([await seen(oma), await marksOf(oma)]).toEqual([[false, 404], []]);
  expect([await classesOf(teacher), await statusOf(teacher, `/api/classes/${id}`)]).toEqual([
    expect.not.arrayContaining([id]),
    404,
  ]);
  expect((await oma.send('POST', '/api/classes/join', { code })).status).toBe(404);
  expect((await oma.send('POST', `/api/classes/${id}/restore`)).status).toBe(404);
  expect((await oma.send<unknown[]>('GET', '/api/deleted-classes')).body).toEqual([]);
  expect((await teacher.send<{ id: string }[]>('GET', '/api/deleted-classes')).body.map((c) => c.id)).toContain(id);

  expect((await teacher.send('POST', `/api/classes/${id}/restore`)).body).toMatchObject({ id, name: 'Field Course' });
  expect([await seen(oma), await marksOf(oma)]).toEqual([[true, 200], [mark]]);

  await teacher.send('DELETE', `/api/classes/${id}`);
  const later = new Date(Date.parse(server.context.now()) + 31 * 86_400_000).toISOString();
  removeExpired({ db: server.context.db, now: () => later });
  expect((await teacher.send('POST', `/api/classes/${id}/restore`)).status).toBe(404);
  expect(server.context.db.get('SELECT 1 AS one FROM class WHERE id = ?', id)).toBeUndefined();
  expect(await marksOf(ines)).toEqual([]);
  expect((await ines.send<Annotation>('GET', `/api/annotations/${mark}`)).status).not.toBe(500);
});
