import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import {
  NOTIFICATION_KINDS,
  type Desk,
  type DeskNotice,
  type Follows,
  type NotificationKind,
  type Notifications,
} from '@avrelle/core/wire';
import { makeClass, makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { putTideMark } from '../testing/tide-mark';

let server: Server;
let teacher: Client;
let ines: Client;
let cal: Client;
let id: string;
let sourceId: string;
let versionId: string;

beforeAll(async () => {
  server = await startServer();
  [teacher, ines, cal] = (await Promise.all(['Teacher', 'Ines', 'Cal'].map((name) => server.person(name)))) as [
    Client,
    Client,
    Client,
  ];
});
afterAll(() => server.close());
/** A class of two students that reads a text of its teacher's; nothing is followed. */
beforeEach(async () => {
  for (const who of [ines, cal]) {
    const { sources, threads, people } = await followed(who);
    for (const one of sources) await follow(who, `sources/${one.id}`, false);
    for (const one of threads) await follow(who, `annotations/${one.rootId}`, false);
    for (const one of people) await follow(who, `people/${one.id}`, false);
  }
  ({ id, sourceId, versionId } = await makeReadingClass(teacher, ines, cal));
});

const followed = async (who: Client) => (await who.send<Follows>('GET', '/api/follows')).body;
const follow = (who: Client, what: string, following = true) => who.send('PUT', `/api/${what}/followed`, { following });
const write = (who: Client, more: object = {}): Promise<string> => putTideMark(who, { id, sourceId, versionId }, more);
const answer = (who: Client, parentId: string, note: string) =>
  who.send('PUT', `/api/replies/${v7()}`, { parentId, note });
const desk = async (who: Client): Promise<DeskNotice[]> =>
  (await who.send<Desk>('GET', '/api/desk')).body.notices.filter((n) => n.sourceId === sourceId);
const why = async (who: Client) => (await desk(who)).map((n) => n.why);

test('what is new in a source that is followed, by who wrote it; not what one writes oneself', async () => {
  const old = await write(cal);
  await follow(ines, `sources/${sourceId}`);
  await follow(ines, `sources/${sourceId}`);
  await cal.send('PATCH', `/api/annotations/${old}`, { version: 1, note: 'better said' });
  expect((await followed(ines)).sources).toEqual([expect.objectContaining({ id: sourceId })]);
  expect(await desk(ines)).toEqual([]);
  await write(ines);
  await write(cal, { note: 'one' });
  await write(cal, { note: 'two' });
  await write(teacher, { note: 'three' });
  expect((await desk(ines)).map((n) => [n.why, n.actor, n.notes, n.reply])).toEqual([
    ['followed', 'Teacher', 1, 'three'],
    ['followed', 'Cal', 2, 'two'],
  ]);
  // What was seen is apart from what comes after.
  await ines.send('POST', '/api/desk/seen');
  await write(cal, { note: 'four' });
  expect((await desk(ines)).map((n) => [n.actor, n.notes, n.seen])).toEqual([
    ['Cal', 1, false],
    ['Teacher', 1, true],
    ['Cal', 2, true],
  ]);
  await follow(ines, `sources/${sourceId}`, false);
  expect([await desk(ines), (await followed(ines)).sources]).toEqual([[], []]);
});

test('a thread is followed from any of its notes, and a person across sources', async () => {
  const root = await write(teacher, { note: 'begun' });
  const reply = v7();
  await cal.send('PUT', `/api/replies/${reply}`, { parentId: root, note: 'first' });
  await follow(ines, `annotations/${reply}`);
  expect((await followed(ines)).threads).toEqual([{ rootId: root, sourceId, words: 'begun' }]);
  await answer(cal, reply, 'second');
  expect((await desk(ines)).map((n) => [n.why, n.rootId, n.reply])).toEqual([['followed', root, 'second']]);
  await follow(ines, `annotations/${root}`, false);
  await follow(ines, `people/${cal.me.id}`);
  expect((await followed(ines)).people).toEqual([{ id: cal.me.id, name: 'Cal' }]);
  await write(teacher);
  await write(cal, { note: 'mine' });
  // What was told of Cal before, by the thread, is told on.
  expect((await desk(ines)).map((n) => [n.actor, n.reply, n.notes])).toEqual([['Cal', 'mine', 2]]);
});

test('only what one sees, once one sees it, and no longer once it is taken back', async () => {
  await follow(ines, `sources/${sourceId}`);
  const mark = await write(cal, { classIds: [], note: 'mine' });
  expect(await why(ines)).toEqual([]);
  await ines.send('POST', '/api/desk/seen');
  const patch = (version: number, more: object) => cal.send('PATCH', `/api/annotations/${mark}`, { version, ...more });
  expect((await patch(1, { classIds: [id] })).status).toBe(200);
  expect(await why(ines)).toEqual(['followed']);
  await patch(2, { note: 'mine, better said' });
  expect((await desk(ines)).map((n) => n.notes)).toEqual([1]);
  await patch(3, { classIds: [] });
  expect(await why(ines)).toEqual([]);
  await patch(4, { classIds: [id], teachersOnly: true });
  expect(await why(ines)).toEqual([]);
});

test('who is answered or meant is told of that, once; further down in one’s thread is said as such', async () => {
  await follow(ines, `sources/${sourceId}`);
  const root = await write(ines, { note: 'what do you think?' });
  const reply = v7();
  await cal.send('PUT', `/api/replies/${reply}`, { parentId: root, note: 'yes' });
  await answer(teacher, reply, 'no');
  expect((await desk(ines)).map((n) => [n.why, n.reply])).toEqual([
    ['thread', 'no'],
    ['answer', 'yes'],
  ]);
});

test('who asks is told of the answers, in one line that stands as new with each', async () => {
  const question = await write(teacher, { note: 'When?' });
  await teacher.send('PUT', `/api/annotations/${question}/question`, { form: 'open', answersShown: 'by_hand' });
  const respond = (who: Client, words: string) => who.send('PUT', `/api/annotations/${question}/response`, { words });
  expect((await respond(ines, 'At seven.')).status).toBe(200);
  expect(await desk(teacher)).toMatchObject([
    { why: 'answered', actor: 'Ines', notes: 1, reply: 'When?', seen: false },
  ]);
  await teacher.send('POST', '/api/desk/seen');
  await respond(cal, 'At eight.');
  expect(await desk(teacher)).toMatchObject([{ why: 'answered', actor: 'Cal', notes: 2, seen: false }]);
  await teacher.send('DELETE', `/api/annotations/${question}/question`);
  expect(await desk(teacher)).toEqual([]);
});

test('a kind that is off, and a muted class, are told no more, and again when that is taken back', async () => {
  await follow(ines, `sources/${sourceId}`);
  await write(cal);
  const put = (off: readonly NotificationKind[]) =>
    ines.send<Notifications>('PUT', '/api/notifications', {
      ...{ every: 'never', hour: 7, zone: 'Europe/London' },
      kinds: NOTIFICATION_KINDS.map((kind) => ({ kind, desk: !off.includes(kind), mail: true })),
    });
  expect((await put(['followed'])).body.kinds.find(({ kind }) => kind === 'followed')).toEqual({
    ...{ kind: 'followed', desk: false, mail: true },
  });
  expect(await why(ines)).toEqual([]);
  await put([]);
  expect(await why(ines)).toEqual(['followed']);
  const mute = (muted: boolean) => ines.send('PUT', `/api/classes/${id}/muted`, { muted });
  await mute(true);
  await mute(true);
  expect(await why(ines)).toEqual([]);
  const { muted } = (await ines.send<Notifications>('GET', '/api/notifications')).body;
  expect(muted).toEqual([{ id, name: 'Field Course', tint: 'tide' }]);
  // What stands in another class as well is told.
  const other = await makeClass(cal, 'Evening', ines);
  await cal.send('PUT', `/api/classes/${other}/sources/${sourceId}`);
  await mute(false);
  expect(await why(ines)).toEqual(['followed']);
});

test('what cannot be followed: what one does not see, and whom one shares no class with', async () => {
  const stranger = await server.person('Stranger');
  const own = await write(cal, { classIds: [] });
  expect((await follow(ines, `annotations/${own}`)).status).toBe(404);
  expect((await follow(ines, `people/${stranger.me.id}`)).status).toBe(404);
  expect((await follow(stranger, `sources/${sourceId}`)).status).toBe(404);
  expect((await stranger.send('PUT', `/api/classes/${id}/muted`, { muted: true })).status).toBe(404);
});

test('who leaves sees nothing of it any more, neither what they follow nor what was told', async () => {
  await follow(ines, `sources/${sourceId}`);
  await follow(ines, `people/${cal.me.id}`);
  await write(cal);
  expect(await why(ines)).toEqual(['followed']);
  await teacher.send('DELETE', `/api/classes/${id}/members/${ines.me.id}`);
  expect(await why(ines)).toEqual([]);
  expect((await followed(ines)).sources).toEqual([]);
});
