import { v7 } from 'uuid';
import type { LibraryOutline, ClassId } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from './harness';

/** A class of a teacher and a student, who share three of the teacher's four texts; and a stranger. No search is kept. */
export interface SharedTexts {
  readonly server: Server;
  readonly teacher: Client;
  readonly student: Client;
  readonly stranger: Client;
  readonly classId: ClassId;
  /** Called one, two, three and own; the last one is not shared. */
  readonly ids: readonly string[];
  outline(who?: Client): Promise<LibraryOutline>;
}

export async function sharedTexts(): Promise<SharedTexts> {
  const server = await startServer();
  const teacher = await server.person('Teacher');
  const student = await server.person('Student');
  const stranger = await server.person('Stranger');
  const classId = v7();
  const ids: string[] = [];
  await teacher.send('PUT', `/api/classes/${classId}`, { name: 'Field Course', tint: 'moss' });
  const { code } = (await teacher.send<{ code: string }>('GET', `/api/classes/${classId}`)).body;
  await student.send('POST', '/api/classes/join', { code });
  server.context.db.run('DELETE FROM saved_search');
  for (const title of ['one', 'two', 'three', 'own']) ids.push(await teacher.keepText(title, `The text of ${title}.`));
  for (const id of ids.slice(0, 3)) await teacher.send('PUT', `/api/classes/${classId}/sources/${id}`, {});
  const outline = async (who = teacher) => (await who.send<LibraryOutline>('GET', '/api/library')).body;
  return { server, teacher, student, stranger, classId, ids, outline };
}
