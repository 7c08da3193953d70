import { afterAll, beforeAll, beforeEach, expect, jest, test } from '@jest/globals';
import { v7 } from 'uuid';
import { NOTIFICATION_KINDS, type ClassId, type ClassJoining, type Notifications } from '@avrelle/core/wire';
import { keepTime } from '../assignments/passing-time';
import { readConfig } from '../config';
import { openInbox, type Inbox } from '../../standins/mail/inbox';
import { removeExpired } from '../library/remove-expired';
import { makeClass, makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { putTideMark } from '../testing/tide-mark';
import { smtpMailer } from './mailer';
import { sendDigests } from './send-digests';

const ADDRESS = 'https://avrelle.saltmere.test';
let server: Server;
let inbox: Inbox;
let teacher: Client;
let ines: Client;
let id: ClassId;
let sourceId: string;
let versionId: string;
/** Minutes since the beginning. */
let minutes = 0;
const BEGIN = Date.parse('2026-12-01T08:00:00.000Z');
const now = (): string => new Date(BEGIN + minutes * 60_000).toISOString();

beforeAll(async () => {
  inbox = await openInbox();
  server = await startServer({
    now,
    env: {
      AVRELLE_SMTP: `smtp://127.0.0.1:${inbox.smtpPort}`,
      AVRELLE_MAIL_FROM: 'Avrelle <avrelle@college.saltmere.test>',
      AVRELLE_ADDRESS: ADDRESS,
    },
  });
  teacher = await server.person('Teacher');
});
afterAll(async () => {
  await server.close();
  await inbox.close();
});
/** Ines, who gets mails by the hour, in a class that reads a text of its teacher's. */
beforeEach(async () => {
  minutes += 24 * 60;
  ines = await server.person(`Ines ${minutes}`);
  ({ id, sourceId, versionId } = await makeReadingClass(teacher, ines));
  await choose({});
});

const choose = (more: object) =>
  ines.send<Notifications>('PUT', '/api/notifications', {
    ...{ every: 'hour', hour: 7, zone: 'Europe/London' },
    kinds: NOTIFICATION_KINDS.map((kind) => ({ kind, desk: true, mail: true })),
    ...more,
  });
const write = (who: Client, note: string): Promise<string> => putTideMark(who, { id, sourceId, versionId }, { note });
const answer = (parentId: string, note: string) => teacher.send('PUT', `/api/replies/${v7()}`, { parentId, note });
const send = (after: number): Promise<number> => {
  minutes += after;
  const { smtp, address } = readConfig({
    AVRELLE_SMTP: `smtp://127.0.0.1:${inbox.smtpPort}`,
    AVRELLE_MAIL_FROM: 'Avrelle <avrelle@college.saltmere.test>',
    AVRELLE_ADDRESS: ADDRESS,
  });
  return sendDigests({ ...server.context, now }, { send: smtpMailer(smtp!), origin: address });
};

test('what is new comes once, as text and as HTML, with a link to its place; read back by a mail library', async () => {
  const mine = await write(ines, 'When <does> it turn?');
  await answer(mine, 'At seven & not <b>before</b>.');
  expect(await send(30)).toBe(0);
  expect(await send(40)).toBe(1);
  const [letter] = inbox.letters;
  expect(letter).toMatchObject({
    subject: '1 new for you',
    from: { value: [{ name: 'Avrelle', address: 'avrelle@college.saltmere.test' }] },
    to: { value: [{ name: ines.me.name, address: ines.me.email }] },
  });
  expect(letter!.text).toContain(`* Teacher answered you\n`);
  expect(letter!.text).toContain('At seven & not <b>before</b>.');
  expect(letter!.text).toContain(`${ADDRESS}/source/${sourceId}?at=${mine}`);
  // Words of others are words in it, and nothing else.
  expect(letter!.html).toContain('At seven &amp; not &lt;b&gt;before&lt;/b&gt;.');
  expect(letter!.html).not.toContain('<b>before');
  expect(await send(60)).toBe(0);
  await answer(mine, 'Or at eight.');
  expect(await send(60)).toBe(1);
  expect(inbox.letters[0]!.text).not.toContain('At seven');
});

test('it says nothing that its receiver has seen, does not want, or may no longer see when it goes out', async () => {
  const mine = await write(ines, 'When?');
  await answer(mine, 'seen already');
  await ines.send('POST', '/api/desk/seen');
  await answer(mine, 'not wanted');
  await choose({ kinds: [{ kind: 'answer', desk: true, mail: false }] });
  expect(await send(60)).toBe(0);
  await choose({});
  const before = inbox.letters.length;
  await teacher.send('DELETE', `/api/classes/${id}/members/${ines.me.id}`);
  expect([await send(60), inbox.letters.length]).toEqual([0, before]);
  // It was not said, so it is once it may be.
  const { code } = (await teacher.send<{ code: string }>('GET', `/api/classes/${id}`)).body;
  await ines.send('POST', '/api/classes/join', { code });
  expect(await send(60)).toBe(1);
  expect(inbox.letters[0]!.text).toContain('not wanted');
  expect(inbox.letters[0]!.text).not.toContain('seen already');
});

test('nothing of a class that is muted', async () => {
  const mine = await write(ines, 'When?');
  await answer(mine, 'At seven.');
  await ines.send('PUT', `/api/classes/${id}/muted`, { muted: true });
  expect(await send(60)).toBe(0);
  await ines.send('PUT', `/api/classes/${id}/muted`, { muted: false });
  expect(await send(60)).toBe(1);
});

test('what is due tomorrow and not done, once; not what is done, or due later', async () => {
  const set = (hours: number, version?: number) =>
    teacher.send('PUT', `/api/classes/${id}/assignments/${sourceId}`, {
      instructions: '',
      marks: [{ kind: null, count: 1 }],
      answers: 0,
      opensAt: null,
      dueAt: new Date(Date.parse(now()) + hours * 3_600_000).toISOString(),
      othersSeen: 'at_once',
      comments: true,
      questions: false,
      groupIds: [],
      ...(version ? { version } : {}),
    });
  await choose({ kinds: [{ kind: 'assignment', desk: true, mail: false }] });
  await set(72);
  expect(await send(60)).toBe(0);
  await set(24, 1);
  expect(await send(60)).toBe(1);
  expect(inbox.letters[0]!.text).toMatch(/Due soon[^]*Tide[^]*\(Field Course\), \w+day[^]*Still missing: one mark/);
  expect(await send(60)).toBe(0);
  await set(26, 2);
  await write(ines, 'done');
  expect(await send(60)).toBe(0);
});

test('where the mail server refuses, it is tried again later, and nothing is lost or said twice', async () => {
  const mine = await write(ines, 'When?');
  await answer(mine, 'At seven.');
  const before = inbox.letters.length;
  inbox.refuse(true);
  const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  expect(await send(60)).toBe(0);
  expect(await send(4)).toBe(0);
  await answer(mine, 'Or at eight.');
  inbox.refuse(false);
  // Tried at five minutes, and not before.
  expect([await send(0), inbox.letters.length]).toEqual([0, before]);
  expect([await send(1), inbox.letters.length]).toEqual([1, before + 1]);
  expect(inbox.letters[0]!.text).toContain('At seven.');
  expect(inbox.letters[0]!.text).toContain('Or at eight.');
  expect(said.mock.calls.flat().join(' ')).toContain('The mailbox is full.');
  said.mockRestore();
  expect(await send(60)).toBe(0);
});

test('a mail server that does not answer is asked once, and others are tried later; nobody is left out', async () => {
  const mine = await write(ines, 'When?');
  await answer(mine, 'At seven.');
  const other = await server.person(`Wim ${minutes}`);
  await other.send('PUT', '/api/notifications', {
    ...{ every: 'hour', hour: 7, zone: 'Europe/London' },
    kinds: [],
  });
  const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const tried: string[] = [];
  const silent = {
    origin: ADDRESS,
    send: ({ to }: { readonly to: { readonly address: string } }) => {
      tried.push(to.address);
      return Promise.reject(new Error('connect ECONNREFUSED'));
    },
  };
  minutes += 60;
  expect(await sendDigests({ ...server.context, now }, silent)).toBe(0);
  expect(tried).toEqual([ines.me.email]);
  said.mockRestore();
  expect(await send(5)).toBe(1);
});

test('a reading that opens long after it was set is told when it opens; each who asks to join, once', async () => {
  const url = `/api/classes/${id}/assignments/${sourceId}`;
  const opensAt = new Date(Date.parse(now()) + 16 * 24 * 3_600_000).toISOString();
  await teacher.send('PUT', url, { marks: [{ kind: null, count: 1 }], opensAt });
  expect(await send(60)).toBe(0);
  minutes += 16 * 24 * 60;
  keepTime({ ...server.context, now });
  expect(await send(0)).toBe(1);
  expect(inbox.letters[0]!.text).toContain('Teacher set a reading (Field Course)');
  const own = await makeClass(ines, 'Evening');
  await ines.send('PUT', `/api/classes/${own}/joining`, { joining: 'asked', askable: false });
  const { code } = (await ines.send<{ code: string }>('GET', `/api/classes/${own}`)).body;
  await teacher.send('POST', '/api/classes/join', { code });
  expect(await send(60)).toBe(1);
  expect(inbox.letters[0]!.text).toContain('1 person asks to join Evening');
  expect(await send(60)).toBe(0);
  const { requests } = (await ines.send<ClassJoining>('GET', `/api/classes/${own}/joining`)).body;
  await ines.send('PUT', `/api/classes/${own}/requests/${requests[0]!.id}`, { letIn: true });
  await (await server.person(`Kit ${minutes}`)).send('POST', '/api/classes/join', { code });
  expect(await send(60)).toBe(1);
});

test('a process that ended while it sent sends the same mail under the same name', async () => {
  const mine = await write(ines, 'When?');
  await answer(mine, 'At seven.');
  const ids: string[] = [];
  const ends = sendDigests(
    { ...server.context, now: () => new Date(Date.parse(now()) + 3_600_000).toISOString() },
    {
      origin: ADDRESS,
      send: ({ id: letter }) => {
        ids.push(letter);
        return new Promise(() => undefined);
      },
    },
  );
  await new Promise(setImmediate);
  void ends;
  expect(await send(60)).toBe(1);
  expect(inbox.letters[0]!.messageId).toBe(`<${ids[0]}@college.saltmere.test>`);
});

test('one POST ends the mails (RFC 8058), without a cookie; looking at the address ends nothing', async () => {
  const mine = await write(ines, 'When?');
  await answer(mine, 'At seven.');
  await send(60);
  const { headerLines } = inbox.letters[0]!;
  const header = (name: string) => headerLines.find(({ key }) => key === name)?.line.replace(/\s+/g, ' ');
  expect(header('list-unsubscribe-post')).toBe('List-Unsubscribe-Post: List-Unsubscribe=One-Click');
  const address = /<(https:[^>]+)>/.exec(header('list-unsubscribe')!.replace(/ /g, ''))![1]!;
  const url = address.slice(ADDRESS.length);
  const every = async () => (await ines.send<Notifications>('GET', '/api/notifications')).body.every;
  await server.nobody.send('GET', url);
  expect(await every()).toBe('hour');
  const stop = () =>
    server.app.inject({
      method: 'POST',
      url,
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      payload: 'List-Unsubscribe=One-Click',
    });
  expect((await stop()).statusCode).toBe(204);
  expect(await every()).toBe('never');
  expect((await stop()).statusCode).toBe(204);
  await answer(mine, 'Or at eight.');
  expect(await send(60)).toBe(0);
  // An address that ends nothing does not say that it did.
  expect((await server.nobody.send('POST', `/stop-mails/${'0'.repeat(64)}`)).status).toBe(404);
  // In the database it stands as a hash alone.
  expect(JSON.stringify(server.context.db.all('SELECT * FROM digest'))).not.toContain(url.slice('/stop-mails/'.length));
});

test('settings that mean nothing are refused, with the words of what is wrong', async () => {
  const wrong = await choose({ zone: 'Marsh/Nowhere' });
  expect([wrong.status, wrong.text]).toEqual([400, expect.stringContaining('There is no time zone “Marsh/Nowhere”')]);
  expect((await choose({ hour: 24 })).status).toBe(400);
  expect(
    (
      await choose({
        kinds: [
          { kind: 'answer', desk: true, mail: true },
          { kind: 'answer', desk: true, mail: false },
        ],
      })
    ).status,
  ).toBe(400);
  expect(() => readConfig({ AVRELLE_SMTP: 'smtp://127.0.0.1:25' })).toThrow(/AVRELLE_MAIL_FROM/);
  expect(() => readConfig({ AVRELLE_SMTP: 'mail.college' })).toThrow(/smtp:\/\//);
  expect(() => readConfig({ AVRELLE_ADDRESS: 'college/' })).toThrow(/AVRELLE_ADDRESS/);
});

test('what mails said is forgotten in the end', async () => {
  const mine = await write(ines, 'When?');
  await answer(mine, 'At seven.');
  await send(60);
  const left = () => server.context.db.all('SELECT id FROM digest').length;
  expect(left()).toBeGreaterThan(0);
  const later = new Date(Date.parse(now()) + 401 * 24 * 3_600_000).toISOString();
  removeExpired({ ...server.context, now: () => later });
  expect([left(), server.context.db.all('SELECT item FROM digest_item')]).toEqual([0, []]);
});
