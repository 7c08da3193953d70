import { v7 } from 'uuid';
import type { Client } from './harness';

/** Makes a class and lets others join it by its code; its id. */
export async function makeClass(teacher: Client, name: string, ...students: readonly Client[]): Promise<string> {
  const id = v7();
  await teacher.send('PUT', `/api/classes/${id}`, { name, tint: 'tide' });
  const { body } = await teacher.send<{ code: string }>('GET', `/api/classes/${id}`);
  for (const student of students) await student.send('POST', '/api/classes/join', { code: body.code });
  return id;
}
