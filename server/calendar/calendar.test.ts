import { afterAll, beforeAll, expect, test } from '@jest/globals';
import ICAL from 'ical.js';
import { v7 } from 'uuid';
import { makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let admin: Client;
let teacher: Client;
let ines: Client;
beforeAll(async () => {
  server = await startServer();
  admin = await server.person('Office');
  [teacher, ines] = (await Promise.all(['Teacher', 'Ines'].map((name) => server.person(name)))) as [Client, Client];
});
afterAll(() => server.close());

/** What a calendar program makes of an address: read by a library of its own (RFC 5545). */
async function events(path: string) {
  const { text, headers, status } = await server.nobody.send('GET', path);
  expect([status, headers['content-type']]).toEqual([200, 'text/calendar; charset=utf-8']);
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
  const calendar = new ICAL.Component(ICAL.parse(text) as unknown[]);
  return calendar.getAllSubcomponents('vevent').map((component) => new ICAL.Event(component));
}
const address = async (who: Client): Promise<string> =>
  (await who.send<{ path: string }>('POST', '/api/calendar')).body.path;

test('what is due is in the calendar at its time, under one name however often it is changed', async () => {
  const { id, sourceId } = await makeReadingClass(teacher, ines);
  const url = `/api/classes/${id}/assignments/${sourceId}`;
  // On the day on which clocks in Europe go back, after they have.
  const dueAt = '2026-10-25T16:00:00.000Z';
  const instructions = 'Read; then, **mark** it: "claims", mud\\salt, and the long word for the marsh; until Friday.';
  await teacher.send('PUT', url, { instructions, dueAt, marks: [{ kind: null, count: 2 }] });
  const path = await address(ines);
  const [first, ...others] = await events(path);
  expect(others).toEqual([]);
  expect(first!.endDate.toJSDate().toISOString()).toBe(dueAt);
  expect(first!.summary).toMatch(/^Due: Tide .* \(Field Course\)$/);
  expect(first!.description).toBe(
    'two marks\n\nRead; then, mark it: "claims", mud\\salt, and the long word for the marsh; until Friday.',
  );
  await teacher.send('PUT', `${url}/extensions/${ines.me.id}`, { dueAt: '2026-10-27T09:30:00.000Z' });
  await teacher.send('PUT', url, { version: 1, instructions, dueAt, answers: 1 });
  const [changed] = await events(path);
  expect([changed!.uid, changed!.sequence > first!.sequence]).toEqual([first!.uid, true]);
  expect(changed!.endDate.toJSDate().toISOString()).toBe('2026-10-27T09:30:00.000Z');
});

test('a new address ends the one before; who leaves the class or is suspended is told nothing', async () => {
  const { id, sourceId } = await makeReadingClass(teacher, ines);
  const dueAt = '2030-10-25T16:00:00.000Z';
  await teacher.send('PUT', `/api/classes/${id}/assignments/${sourceId}`, { dueAt });
  const of = async (path: string) => (await events(path)).filter(({ uid }) => uid.startsWith(id)).length;
  const [old, path] = [await address(ines), await address(ines)];
  expect([(await server.nobody.send('GET', old)).status, await of(path)]).toEqual([404, 1]);
  expect((await ines.send<{ path: string }>('GET', '/api/calendar')).body.path).toBe(path);
  await ines.send('DELETE', `/api/classes/${id}/membership`);
  expect(await of(path)).toBe(0);
  await ines.send('DELETE', '/api/calendar');
  expect((await server.nobody.send('GET', path)).status).toBe(404);
  const last = await address(ines);
  await admin.send('PUT', `/api/people/${ines.me.id}/suspension`);
  expect((await server.nobody.send('GET', last)).status).toBe(404);
  expect((await server.nobody.send('GET', `/calendar/${v7()}`)).status).toBe(404);
});
