import type { AddressInfo } from 'node:net';
import { afterAll, afterEach, beforeAll, expect, jest, test } from '@jest/globals';
import { v7 } from 'uuid';
import { WebSocket } from 'ws';
import type { ClassDetail, Live, LiveNow, LiveTold } from '@avrelle/core/wire';
import { openDatabase } from '../db/database';
import { makeReadingClass, type ReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { refused } from '../testing/refused';

let server: Server;
let teacher: Client;
let ines: Client;
let tomas: Client;
let stranger: Client;
let room: ReadingClass;
const db = openDatabase(':memory:');
let now = '2026-12-01T09:00:00.000Z';
const open: { close(): void }[] = [];

async function start(): Promise<Server> {
  const made = await startServer({ db, now: () => now });
  await made.app.listen({ host: '127.0.0.1', port: 0 });
  return made;
}
beforeAll(async () => {
  server = await start();
  [teacher, ines, tomas, stranger] = (await Promise.all(
    ['Dr Aldous', 'Ines', 'Tomas', 'Wim'].map((name) => server.person(name)),
  )) as [Client, Client, Client, Client];
  room = await makeReadingClass(teacher, ines, tomas);
});
afterEach(async () => {
  for (const screen of open.splice(0)) screen.close();
  server.context.live.end(room.id);
});
afterAll(() => server.close());

const place = (start = 0) => ({ sourceId: room.sourceId, annotationId: null, range: { start, end: start + 4 } });
const begin = (by: Client, more: object = {}) =>
  by.send<LiveNow & { code: string }>('PUT', `/api/classes/${room.id}/live`, { place: place(), ...more });

/** Somebody's screen: what it was told, in order. */
async function screen(of: Client, headers: object = {}) {
  const told: LiveTold[] = [];
  let closed: number | undefined;
  const waits = new Set<() => void>();
  const wake = (): void => waits.forEach((go) => go());
  const { port } = server.app.server.address() as AddressInfo;
  const socket = new WebSocket(`ws://127.0.0.1:${port}/api/classes/${room.id}/live`, {
    headers: { cookie: of.cookie, origin: `http://127.0.0.1:${port}`, ...headers },
  });
  socket.on('message', (data: Buffer) => {
    told.push(JSON.parse(data.toString()) as LiveTold);
    wake();
  });
  socket.on('close', (code) => {
    closed = code;
    wake();
  });
  await new Promise((resolve, reject) => socket.on('open', resolve).on('error', reject));
  open.push({ close: () => socket.terminate() });
  const until = <T>(found: () => T | undefined): Promise<T> =>
    new Promise((resolve, reject) => {
      const late = setTimeout(() => reject(new Error(`never came; told ${JSON.stringify(told)}`)), 3_000);
      const look = (): void => {
        const value = found();
        if (value === undefined) return;
        waits.delete(look);
        clearTimeout(late);
        resolve(value);
      };
      waits.add(look);
      look();
    });
  return {
    told,
    say: (message: object) => socket.send(JSON.stringify(message)),
    /** The next message of a type that says so, from now on or before. */
    hears: <T extends LiveTold['type']>(type: T, such: (one: Extract<LiveTold, { type: T }>) => boolean = () => true) =>
      until(() => told.find((one): one is Extract<LiveTold, { type: T }> => one.type === type && such(one as never))),
    closed: () => until(() => closed),
    go: (code?: number) => (code === undefined ? socket.terminate() : socket.close(code)),
    until,
  };
}
const sees = (such: (live: Live) => boolean) => (one: { live: Live | null }) => one.live !== null && such(one.live);

test('a teacher shows; who follows is told what, with what was drawn; who comes late sees the same', async () => {
  expect((await begin(teacher, { walkthroughId: v7(), step: { at: 0, of: 7 } })).body).toMatchObject({
    by: { name: 'Dr Aldous' },
    class: { id: room.id },
  });
  const shows = await screen(teacher);
  const follows = await screen(ines);
  const state = await follows.hears('state');
  expect(state).toMatchObject({ teaches: false, me: null, live: { walkthroughId: null, step: { at: 0, of: 7 } } });
  expect((await shows.hears('state')).live!.walkthroughId).not.toBeNull();

  const drawn = {
    range: { start: 0, end: 4 },
    spot: {
      ...{ type: 'drawn', tool: 'pen', colour: 'ink', width: 0.1 },
      tied: { to: 'words', words: [[0, 4]], strokes: [[[0, 0.2, 0.5, 0.5]]] },
    },
  };
  shows.say({ type: 'top', at: 11 });
  shows.say({ type: 'ink', id: v7(), ink: drawn });
  shows.say({ type: 'pointer', at: drawn });
  shows.say({ type: 'blank', on: true });
  const { n } = await follows.hears(
    'live',
    sees(({ blank }) => blank),
  );
  expect(follows.told.flatMap((one) => ('n' in one && one.type !== 'state' ? [one.n - state.n] : []))).toEqual([
    1, 2, 3, 4,
  ]);

  const late = await (await screen(tomas)).hears('state');
  expect(late).toMatchObject({ n, live: { top: 11, blank: true }, ink: [{ ink: drawn }], pointer: drawn });
  shows.say({ type: 'place', place: place(5), step: { at: 1, of: 7 } });
  expect(
    (
      await follows.hears(
        'live',
        sees(({ step }) => step?.at === 1),
      )
    ).live!.top,
  ).toBeNull();
  expect((await (await screen(tomas)).hears('state')).ink).toEqual([]);
});

test('who follows looks around, raises a hand, and is seen by teachers alone; a call brings back', async () => {
  await begin(teacher);
  const [shows, follows, other] = [await screen(teacher), await screen(ines), await screen(tomas)];
  follows.say({ type: 'around', on: true, at: 8 });
  follows.say({ type: 'hand', up: true });
  const seen = await shows.hears('people', ({ people }) => people.some(({ hand }) => hand));
  expect(seen.people.map(({ name, around, at, hand }) => [name, around, at, hand])).toEqual([
    ['Ines', true, 8, true],
    ['Tomas', false, null, false],
  ]);
  shows.say({ type: 'recall', personId: tomas.me.id });
  shows.say({ type: 'lower', personId: ines.me.id });
  await follows.hears('state', ({ me }) => me?.around === true && !me.hand);
  shows.say({ type: 'recall', personId: null });
  await follows.hears('state', ({ me }) => me?.around === false);
  expect(other.told.filter(({ type }) => type === 'people' || type === 'state')).toHaveLength(1);
});

test('what a student says of what is shown changes nothing, nor what another teacher says', async () => {
  const helper = await server.person('Sten');
  const { code } = (await teacher.send<ClassDetail>('GET', `/api/classes/${room.id}`)).body;
  await helper.send('POST', '/api/classes/join', { code });
  await teacher.send('PUT', `/api/classes/${room.id}/members/${helper.me.id}`, { role: 'assistant' });
  await begin(teacher);
  const [shows, follows, helps] = [await screen(teacher), await screen(ines), await screen(helper)];
  for (const one of [follows, helps]) one.say({ type: 'blank', on: true });
  follows.say({ type: 'shout' });
  await follows.hears('refused');
  shows.say({ type: 'answers', on: true });
  const { live } = await follows.hears(
    'live',
    sees(({ answers }) => answers),
  );
  expect(live!.blank).toBe(false);

  expect((await begin(ines)).status).toBe(403);
  expect((await begin(helper)).body.code).toBe('live_already');
  expect((await begin(helper, { takeOver: true })).body.by.name).toBe('Sten');
  await follows.hears(
    'live',
    sees(({ by }) => by.name === 'Sten'),
  );
  shows.say({ type: 'blank', on: true });
  helps.say({ type: 'place', place: place(5), step: null });
  expect(
    (
      await follows.hears(
        'live',
        sees((of) => of.place.range?.start === 5),
      )
    ).live!.blank,
  ).toBe(false);
});

test('who is removed or signed out in the middle hears nothing more; who is made a student shows no more', async () => {
  const others = await Promise.all(['Jory', 'Kit', 'Luz'].map((name) => server.person(name)));
  const { code } = (await teacher.send<ClassDetail>('GET', `/api/classes/${room.id}`)).body;
  for (const one of others) await one.send('POST', '/api/classes/join', { code });
  const [jory, kit, luz] = others as [Client, Client, Client];
  await begin(teacher);
  const screens = await Promise.all([jory, kit, luz].map((one) => screen(one)));
  await teacher.send('DELETE', `/api/classes/${room.id}/members/${jory.me.id}`);
  expect(await screens[0]!.closed()).toBe(4403);
  await kit.send('DELETE', '/api/session');
  expect(await screens[1]!.closed()).toBe(4401);

  await teacher.send('PUT', `/api/classes/${room.id}/members/${luz.me.id}`, { role: 'assistant' });
  await screens[2]!.hears('state', ({ teaches }) => teaches);
  await begin(luz, { takeOver: true });
  await teacher.send('PUT', `/api/classes/${room.id}/members/${luz.me.id}`, { role: 'student' });
  await screens[2]!.hears('live', ({ live }) => live === null);
  expect((await luz.send<LiveNow | null>('GET', `/api/classes/${room.id}/live`)).body).toBeNull();
});

test('session, origin and membership are asked before the connection opens', async () => {
  await begin(teacher);
  const status = (of: Client, headers: object = {}): Promise<string> => refused(screen(of, headers));
  expect(await status(server.nobody)).toMatch(/401/);
  expect(await status(stranger)).toMatch(/404/);
  expect(await status(ines, { origin: 'http://elsewhere.saltmere.test' })).toMatch(/403/);
  expect(await status(ines, { origin: '' })).toMatch(/403/);
  expect(await status(ines)).toBe('nothing');
});

test('members are told where something is shown, and that it ended; an archived class sees nothing', async () => {
  const listed = async (of: Client) => (await of.send<LiveNow[]>('GET', '/api/live')).body.map((one) => one.class.name);
  await begin(teacher);
  expect([await listed(ines), await listed(teacher), await listed(stranger)]).toEqual([
    ['Field Course'],
    ['Field Course'],
    [],
  ]);
  const follows = await screen(ines);
  await teacher.send('PUT', `/api/classes/${room.id}/archived`, { archived: true });
  await follows.hears('live', ({ live }) => live === null);
  expect(await listed(ines)).toEqual([]);
  expect((await begin(teacher)).body.code).toBe('class_archived');
  await teacher.send('PUT', `/api/classes/${room.id}/archived`, { archived: false });
});

test('what nobody shows any more is ended after half an hour, not what is only interrupted', async () => {
  await begin(teacher);
  const shows = await screen(teacher);
  await shows.hears('state');
  now = '2026-12-01T11:00:00.000Z';
  server.context.live.endLeft();
  const shown = async () => (await ines.send<LiveNow | null>('GET', `/api/classes/${room.id}/live`)).body !== null;
  expect(await shown()).toBe(true);
  const follows = await screen(ines);
  shows.go(1001);
  await follows.hears('state');
  await new Promise((next) => setTimeout(next, 50));
  now = '2026-12-01T11:29:00.000Z';
  server.context.live.endLeft();
  expect(await shown()).toBe(true);
  now = '2026-12-01T11:31:00.000Z';
  server.context.live.endLeft();
  expect(await shown()).toBe(false);
  await follows.hears('live', ({ live }) => live === null);
});

test('a window that is closed is gone; a connection that breaks is lost, and comes back as it was', async () => {
  await begin(teacher);
  const [shows, goes, breaks] = [await screen(teacher), await screen(ines), await screen(tomas)];
  breaks.say({ type: 'around', on: true, at: 3 });
  await shows.hears('people', ({ people }) => people.some(({ around }) => around));
  goes.go(1001);
  breaks.go();
  await shows.hears('people', ({ people }) => people.length === 1 && people[0]!.lostAt === now);
  const again = await (await screen(tomas)).hears('state');
  expect(again.me).toEqual({ around: true, hand: false });
});

test('what cannot be stored has not happened: who said it is let go, and the server stands', async () => {
  await begin(teacher);
  const [shows, follows] = [await screen(teacher), await screen(ines)];
  const { db: stored } = server.context;
  const run = jest.spyOn(stored, 'run').mockImplementation(() => {
    throw Object.assign(new Error('database is locked'), { code: 'SQLITE_BUSY' });
  });
  const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  shows.say({ type: 'blank', on: true });
  expect(await shows.closed()).toBe(1011);
  run.mockRestore();
  const again = await screen(teacher);
  expect((await again.hears('state')).live!.blank).toBe(false);
  again.say({ type: 'blank', on: true });
  await follows.hears(
    'live',
    sees(({ blank }) => blank),
  );
  expect(said).toHaveBeenCalledWith('live:', expect.objectContaining({ code: 'SQLITE_BUSY' }));
  said.mockRestore();
});

test('one person has so many windows, and no more', async () => {
  await begin(teacher);
  const leave = Array.from({ length: 24 }, () =>
    server.context.streams.add({ personId: tomas.me.id, session: 'x', end: () => undefined }),
  );
  expect(await (await screen(tomas)).closed()).toBe(4430);
  for (const go of leave) go();
  await (await screen(tomas)).hears('state');
});

test('who sends without end is cut off', async () => {
  await begin(teacher);
  const [follows, quiet] = [await screen(ines), await screen(tomas)];
  for (let n = 0; n < 90; n++) follows.say({ type: 'hand', up: n % 2 === 0 });
  expect(await follows.closed()).toBe(4429);
  quiet.say({ type: 'x'.repeat(200_000) });
  expect(await quiet.closed()).toBe(1009);
});

/** The last one: whoever asks asks the server before it. */
test('what is shown stands over a restart, and nothing of the pointer', async () => {
  await begin(teacher);
  const shows = await screen(teacher);
  shows.say({ type: 'place', place: place(5), step: { at: 2, of: 7 } });
  shows.say({ type: 'blank', on: true });
  await shows.hears(
    'live',
    sees(({ blank }) => blank),
  );
  server.context.live.close();
  expect(await shows.closed()).toBe(1012);
  const before = server;
  server = await start();
  const { live, n, ink } = await (await screen(ines)).hears('state');
  expect([live!.place.range!.start, live!.step, live!.blank, n, ink]).toEqual([5, { at: 2, of: 7 }, true, 0, []]);
  before.context.events.close();
  await before.context.jobs.stop();
  await before.app.close();
});
