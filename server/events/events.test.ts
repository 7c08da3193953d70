import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { ClassDetail, SourceDetail, StreamEvent, Welcome } from '@avrelle/core/wire';
import { COOKIE } from '../accounts/session';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let base: string;
const clients: Record<string, Client> = {};
const cookies: Record<string, string> = {};
let classId: string;
let source: SourceDetail;

beforeAll(async () => {
  server = await startServer();
  base = await server.app.listen({ port: 0, host: '127.0.0.1' });
  for (const name of ['author', 'mate', 'stranger']) {
    clients[name] = await server.person(name);
    const signed = await server.app.inject({
      method: 'POST',
      url: '/api/session',
      remoteAddress: `10.1.1.${name.length}`,
      payload: { email: `${name}@college.saltmere.test`, password: 'a long enough password' },
    });
    cookies[name] = `${COOKIE}=${signed.cookies[0]!.value}`;
  }
  classId = v7();
  await clients.author!.send('PUT', `/api/classes/${classId}`, { name: 'Field Course', tint: 'tide' });
  const { body } = await clients.author!.send<ClassDetail>('GET', `/api/classes/${classId}`);
  await clients.mate!.send('POST', '/api/classes/join', { code: body.code });
  const id = await clients.author!.keepText('tide', 'The tide turns at seven.');
  await clients.author!.send('PUT', `/api/classes/${classId}/sources/${id}`, {});
  source = (await clients.author!.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
});
afterAll(() => server.close());

interface Listening {
  readonly heard: StreamEvent[];
  lastId(): string;
  close(): void;
  until(found: (heard: readonly StreamEvent[]) => boolean): Promise<void>;
}

/** Reads the stream as the HTML Standard, 9.2.6, says: `id:` and `data:` lines, an empty line ends an event. */
async function listen(name: string, lastId?: string, since = ''): Promise<Listening> {
  const stop = new AbortController();
  const response = await fetch(`${base}/api/events${since}`, {
    headers: { cookie: cookies[name]!, ...(lastId ? { 'last-event-id': lastId } : {}) },
    signal: stop.signal,
  });
  expect(response.headers.get('content-type')).toMatch(/^text\/event-stream/);
  const heard: StreamEvent[] = [];
  let last = '';
  let buffered = '';
  let wake = (): void => undefined;
  void (async () => {
    for await (const part of response.body!.pipeThrough(new TextDecoderStream()) as unknown as AsyncIterable<string>) {
      buffered += part;
      for (let end = buffered.indexOf('\n\n'); end >= 0; end = buffered.indexOf('\n\n')) {
        const event = buffered.slice(0, end);
        buffered = buffered.slice(end + 2);
        last = /^id: (.+)$/m.exec(event)?.[1] ?? last;
        const data = /^event: /m.test(event) ? undefined : /^data: (.+)$/m.exec(event)?.[1];
        if (data) heard.push(JSON.parse(data) as StreamEvent);
        wake();
      }
    }
  })().catch(() => undefined);
  const until: Listening['until'] = async (found) => {
    while (!found(heard))
      await new Promise<void>((go) => {
        wake = go;
      });
  };
  if (!lastId)
    while (!last)
      await new Promise<void>((go) => {
        wake = go;
      });
  return { heard, lastId: () => last, close: () => stop.abort(), until };
}

const write = async (classIds: string[], more: object = {}): Promise<string> => {
  const id = v7();
  await clients.author!.send('PUT', `/api/annotations/${id}`, {
    sourceId: source.id,
    versionId: source.versionId,
    kind: 'claim',
    note: 'heard',
    tags: [],
    anchor: { quote: { exact: 'tide', prefix: 'The ', suffix: ' turns' }, position: { start: 4, end: 8 } },
    classIds,
    ...more,
  });
  return id;
};
const has =
  (id: string) =>
  (heard: readonly StreamEvent[]): boolean =>
    heard.some((e) => e.type === 'annotation' && e.annotation.id === id);

test('a shared annotation is told to the class and to nobody else; when withdrawn, the class hears that it is gone', async () => {
  const [mate, stranger, author] = await Promise.all([listen('mate'), listen('stranger'), listen('author')]);
  const [secret, shared] = [await write([]), await write([classId])];
  await Promise.all([mate.until(has(shared)), author.until(has(shared))]);
  await clients.author!.send('PATCH', `/api/annotations/${shared}`, { version: 1, classIds: [] });
  await mate.until((heard) => heard.some((e) => e.type === 'gone' && e.annotationId === shared));
  expect(has(secret)(mate.heard)).toBe(false);
  expect(JSON.stringify(mate.heard)).not.toContain(secret);
  expect(stranger.heard).toEqual([]);
  for (const one of [mate, stranger, author]) one.close();
});

test('what is held is named to no student, however it is changed, and told once it is released', async () => {
  const [mate, author] = [await listen('mate'), await listen('author')];
  const held = await write([classId], { held: true });
  await clients.author!.send('PATCH', `/api/annotations/${held}`, { version: 1, note: 'changed' });
  await clients.author!.send('PATCH', `/api/annotations/${held}`, { version: 2, classIds: [] });
  await clients.author!.send('PATCH', `/api/annotations/${held}`, { version: 3, classIds: [classId], held: true });
  const shared = await write([classId]);
  await Promise.all([mate.until(has(shared)), author.until(has(shared))]);
  expect(JSON.stringify(mate.heard)).not.toContain(held);
  expect(has(held)(author.heard)).toBe(true);
  await clients.author!.send('POST', `/api/classes/${classId}/held/release`, { annotationIds: [held] });
  await mate.until(has(held));
  expect(JSON.stringify(mate.heard)).not.toContain('"held"');
  await clients.author!.send('POST', `/api/classes/${classId}/held/back`, { annotationIds: [held] });
  await mate.until((heard) => heard.some((e) => e.type === 'gone' && e.annotationId === held));
  for (const one of [mate, author]) one.close();
});

test('what one has read and starred is told to one’s own windows alone', async () => {
  const [mate, author] = [await listen('mate'), await listen('author')];
  const id = await write([classId]);
  await Promise.all([mate.until(has(id)), author.until(has(id))]);
  const threads = (heard: readonly StreamEvent[]): number => heard.filter((e) => e.type === 'threads').length;
  await clients.mate!.send('POST', '/api/annotations/seen', { annotationIds: [id] });
  await clients.mate!.send('POST', '/api/annotations/seen', { annotationIds: [id] });
  await clients.mate!.send('PUT', `/api/annotations/${id}/star`, { starred: true });
  await mate.until((heard) => threads(heard) >= 2);
  const last = await write([classId]);
  await Promise.all([mate.until(has(last)), author.until(has(last))]);
  expect([threads(mate.heard), threads(author.heard)]).toEqual([2, 0]);
  for (const one of [mate, author]) one.close();
});

test('a new version is told to those who may read the source, and to nobody else', async () => {
  const [mate, stranger] = await Promise.all([listen('mate'), listen('stranger')]);
  await clients.author!.keepAgain(source.id, 'The tide turns at eight, says the new table.');
  await mate.until((heard) => heard.some((e) => e.type === 'source' && e.sourceId === source.id));
  expect(stranger.heard).toEqual([]);
  for (const one of [mate, stranger]) one.close();
});

test('what was missed while the connection was broken is heard after it', async () => {
  const first = await listen('mate');
  const heard = await write([classId]);
  await first.until(has(heard));
  first.close();
  const missed = await write([classId]);
  const again = await listen('mate', first.lastId());
  await again.until(has(missed));
  expect(has(heard)(again.heard)).toBe(false);
  again.close();
});

test('what happened between a page’s first question and its stream is heard', async () => {
  const { body } = await clients.mate!.send<Welcome>('GET', '/api/welcome');
  const between = await write([classId]);
  const mate = await listen('mate', undefined, `?since=${body.event}`);
  await mate.until(has(between));
  const { body: later } = await clients.mate!.send<Welcome>('GET', '/api/welcome');
  const calm = await listen('mate', undefined, `?since=${later.event}`);
  expect(calm.heard).toEqual([]);
  for (const one of [mate, calm]) one.close();
});

test('nobody listens without being signed in', async () => {
  expect((await fetch(`${base}/api/events`)).status).toBe(401);
});

test('the stream ends with its session, and others go on', async () => {
  const one = await server.app.inject({
    method: 'POST',
    url: '/api/session',
    remoteAddress: '10.1.2.1',
    payload: { email: 'mate@college.saltmere.test', password: 'a long enough password' },
  });
  const cookie = `${COOKIE}=${one.cookies[0]!.value}`;
  const other = await listen('mate');
  const response = await fetch(`${base}/api/events`, { headers: { cookie } });
  const ended = response.text();
  await fetch(`${base}/api/session`, { method: 'DELETE', headers: { cookie } });
  expect(await ended).toContain('event: ready');
  const shared = await write([classId]);
  await other.until(has(shared));
  other.close();
});

test('a page that heard another database, or far too much ago, is told to start anew or to ask for everything', async () => {
  const first = async (since: string): Promise<string> => {
    const stop = new AbortController();
    const response = await fetch(`${base}/api/events?since=${since}`, {
      headers: { cookie: cookies.author! },
      signal: stop.signal,
    });
    const { value } = await response.body!.getReader().read();
    stop.abort();
    return Buffer.from(value!).toString('utf8');
  };
  expect(
    [await first('0123456789abcdef-1'), await first('7'), await first('x')].map(
      (text) => /^event: (\w+)$/m.exec(text)?.[1],
    ),
  ).toEqual(['restart', 'restart', 'restart']);
  const { events, db } = server.context;
  const at = events.cursor();
  db.transaction(() => {
    for (let n = 0; n < 600; n++) events.append({ type: 'desk', personId: clients.author!.me.id });
  });
  expect(/^event: (\w+)$/m.exec(await first(at))?.[1]).toBe('reload');
});

test('what an event says is asked of the database once, however many listen', async () => {
  const many = await Promise.all(Array.from({ length: 12 }, () => listen('mate')));
  const { db } = server.context;
  const all = db.all.bind(db);
  const get = db.get.bind(db);
  let asked = 0;
  const counting =
    <T extends unknown[], R>(work: (...given: T) => R) =>
    (...given: T): R => {
      if (/annotation_visible|FROM annotation a/.test(String(given[0]))) asked++;
      return work(...given);
    };
  Object.assign(db, { all: counting(all as never), get: counting(get as never) });
  const shared = await write([classId]);
  const before = asked;
  await Promise.all(many.map((one) => one.until(has(shared))));
  Object.assign(db, { all, get });
  expect([before > 0, asked - before]).toEqual([true, expect.any(Number)]);
  expect(asked - before).toBeLessThanOrEqual(4);
  for (const one of many) one.close();
});
