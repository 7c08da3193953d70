import fs from 'node:fs';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { Worker } from 'node:worker_threads';
import { buildApp } from '../server/app';
import { atMost, percentile, type Bench, type Result } from './measure';
import { folder, largeClass, open } from './server';

/** What a hand does, for so many seconds: a pointer 25 times a second, a stroke that grows 12 times. */
const SECONDS = 5;
const HANDS = [
  { name: 'pointer', each: 40, points: 1 },
  { name: 'pen, in strokes of up to 120 points,', each: 80, points: 120 },
] as const;
const SOURCE = '01940000-0000-7000-8000-000000000001';

/**
 * The screens of a class in a thread of their own, so that the server's own is measured alone. Tells when all follow,
 * then how long each message took from who shows to each of them.
 */
const SCREENS = `
  const { parentPort, workerData } = require('node:worker_threads');
  const { WebSocket } = require('ws');
  const { base, url, cookies, each, points, seconds } = workerData;
  const open = (cookie, hear) => new Promise((come) => {
    const socket = new WebSocket(base.replace('http', 'ws') + url, { headers: { cookie, origin: base } });
    socket.on('message', (data) => {
      const told = JSON.parse(data.toString());
      if (told.type === 'state') come(socket);
      else hear(told);
    });
  });
  const strokeOf = (points) => Array.from({ length: points }, (_, at) => [0, at / points, 0.5, 0.5]);
  const drawn = (n, points) => ({ range: { start: n, end: n + 5 }, spot: {
    type: 'drawn', tool: 'pen', colour: 'ink', width: 0.1,
    tied: { to: 'words', words: [[0, 5]], strokes: [strokeOf(points)] } } });
  const id = '01940000-0000-7000-8000-0000000000aa';
  const said = (n) => points === 1
    ? { type: 'pointer', at: drawn(n, 1) }
    : { type: 'ink', id, ink: drawn(n, 2 + ((n * 5) % points)) };
  (async () => {
    const sent = [];
    const took = [];
    const hear = (told) => {
      const ink = told.at ?? told.ink;
      if (ink) took.push(performance.now() - sent[ink.range.start]);
    };
    const shows = await open(cookies[0], () => {});
    const sockets = await Promise.all(cookies.slice(1).map((cookie) => open(cookie, hear)));
    await new Promise((go) => parentPort.once('message', go).postMessage('here'));
    for (let n = 0; n < (seconds * 1000) / each; n++) {
      sent.push(performance.now());
      shows.send(JSON.stringify(said(n)));
      await new Promise((next) => setTimeout(next, each));
    }
    await new Promise((next) => setTimeout(next, 500));
    parentPort.postMessage({ took, of: sent.length * sockets.length });
    for (const socket of [shows, ...sockets]) socket.terminate();
  })();
`;

/** What a class of 300 sees of a hand, and what that costs the server. */
export const live: Bench = async () => {
  const dir = folder();
  const context = open(path.join(dir, 'a.db'));
  const { classId, cookies } = largeClass(context);
  const app = await buildApp(context);
  const base = await app.listen({ port: 0, host: '127.0.0.1' });
  const url = `/api/classes/${classId}/live`;
  const payload = { place: { sourceId: SOURCE } };
  const headers = { cookie: cookies[0]! };
  const began = await app.inject({ method: 'PUT', url, headers, payload });
  if (began.statusCode !== 200) throw new Error(began.body);
  const results: Result[] = [];
  for (const { name, each, points } of HANDS) {
    const { took, busy } = await followed({ base, url, cookies, each, points, seconds: SECONDS });
    results.push(
      atMost(`live: ${name} from a teacher to 299 screens, p95`, percentile(took, 0.95), 'ms', 100),
      atMost(`live: ${name} one core of the server, busy`, 100 * busy, '%', 50),
    );
  }
  context.live.close();
  await app.close();
  context.db.close();
  fs.rmSync(dir, { recursive: true });
  return results;
};

/** How long each message took to each screen, and how busy the server's thread was meanwhile, from 0 to 1. */
async function followed(workerData: object): Promise<{ readonly took: readonly number[]; readonly busy: number }> {
  const screens = new Worker(SCREENS, { eval: true, workerData });
  const next = <T>(): Promise<T> =>
    new Promise((come, fail) => screens.once('message', come as (value: unknown) => void).once('error', fail));
  await next();
  const before = performance.eventLoopUtilization();
  screens.postMessage('go');
  const { took, of } = await next<{ took: number[]; of: number }>();
  const { utilization } = performance.eventLoopUtilization(before);
  await screens.terminate();
  if (took.length < of) throw new Error(`Of ${of} messages ${took.length} came.`);
  return { took, busy: utilization };
}
