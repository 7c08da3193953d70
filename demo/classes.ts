import { v7 } from 'uuid';
import type { ClassDetail } from '@avrelle/core/wire';
import { STUDENTS } from './people';

/** Asks a route as one of the people, by their key. */
type Send = <T>(by: string, method: 'GET' | 'POST' | 'PUT', url: string, payload?: object) => Promise<T>;

interface Clock {
  set(daysAgo: number, hour?: number, minute?: number): void;
}

interface Classes {
  readonly classIds: Readonly<Record<'A' | 'B', string>>;
  /** By the key of a person, in Field Course B. */
  readonly groupOf: ReadonlyMap<string, string>;
}

/** Both courses with their students; a link, groups, somebody who waits, and a class of last year. */
export async function seedClasses(send: Send, clock: Clock): Promise<Classes> {
  clock.set(28);
  const classIds = { A: await course(send, 'A', 'moss'), B: await course(send, 'B', 'tide') };
  const url = `/api/classes/${classIds.B}`;
  await send('aldous', 'PUT', `${url}/links/${v7()}`, { days: 120, uses: 20 });
  await send('aldous', 'PUT', `${url}/joining`, { joining: 'asked', askable: true });
  const groupOf = await groups(send, url);
  const former = `/api/classes/${v7()}`;
  await send('aldous', 'PUT', former, { name: 'Harbour Walks 2025', tint: 'clay' });
  await send('aldous', 'PUT', `${former}/archived`, { archived: true });
  const { code } = await send<ClassDetail>('aldous', 'GET', url);
  clock.set(1, 9, 20);
  await send('jory', 'POST', '/api/classes/join', { code });
  return { classIds, groupOf };
}

async function course(send: Send, letter: 'A' | 'B', tint: string): Promise<string> {
  const id = v7();
  await send('aldous', 'PUT', `/api/classes/${id}`, { name: `Field Course ${letter}`, tint });
  const { code } = await send<ClassDetail>('aldous', 'GET', `/api/classes/${id}`);
  for (const { key, classes } of STUDENTS)
    if (classes.includes(letter)) await send(key, 'POST', '/api/classes/join', { code });
  return id;
}

/** Three groups of a class; which somebody is in. */
async function groups(send: Send, url: string): Promise<Classes['groupOf']> {
  const { members } = await send<ClassDetail>('aldous', 'GET', url);
  const made = ['Bank', 'Creek', 'Marsh'].map((name) => ({ id: v7(), name, personIds: [] as string[] }));
  const groupOf = new Map<string, string>();
  members
    .filter(({ role }) => role === 'student')
    .forEach(({ id, name }, n) => {
      const group = made[n % made.length]!;
      group.personIds.push(id);
      const person = STUDENTS.find((one) => one.name === name);
      if (person) groupOf.set(person.key, group.id);
    });
  await send('aldous', 'PUT', `${url}/groups`, { version: 0, groups: made });
  return groupOf;
}
