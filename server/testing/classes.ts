import { v7 } from 'uuid';
import type { ClassId, SourceDetail, SourceId, VersionId } from '@avrelle/core/wire';
import type { Answer, Client, Server } from './harness';

/** Makes a class and lets others join it by its code; its id. */
export async function makeClass(teacher: Client, name: string, ...students: readonly Client[]): Promise<string> {
  const id = v7();
  await teacher.send('PUT', `/api/classes/${id}`, { name, tint: 'tide' });
  const { body } = await teacher.send<{ code: string }>('GET', `/api/classes/${id}`);
  for (const student of students) await student.send('POST', '/api/classes/join', { code: body.code });
  return id;
}

/** Shows a class a list of people, as a browser sends a file. */
export async function showRoster<T>(
  { app }: Pick<Server, 'app'>,
  { cookie }: Client,
  classId: string,
  payload: string | Buffer,
): Promise<Answer<T>> {
  const url = `/api/classes/${classId}/roster/preview`;
  const headers = { cookie, 'content-type': 'application/octet-stream' };
  const answer = await app.inject({ method: 'POST', url, headers, payload });
  return { status: answer.statusCode, body: answer.json<T>(), headers: answer.headers, text: answer.body };
}

export interface ReadingClass {
  readonly id: ClassId;
  readonly sourceId: SourceId;
  readonly versionId: VersionId;
}

/** A class that reads a text of its teacher's, which begins with “The tide turns at seven.” */
export async function makeReadingClass(teacher: Client, ...students: readonly Client[]): Promise<ReadingClass> {
  const id = await makeClass(teacher, 'Field Course', ...students);
  const sourceId = await teacher.keepText(`tide ${id}`, `The tide turns at seven. ${id}`);
  const { versionId } = (await teacher.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
  await teacher.send('PUT', `/api/classes/${id}/sources/${sourceId}`);
  return { id, sourceId, versionId };
}
