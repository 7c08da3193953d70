import fs from 'node:fs';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { Worker } from 'node:worker_threads';
import { buildApp } from '../server/app';
import { atMost, percentile, type Bench } from './measure';
import { folder, largeClass, open } from './server';

/** A pointer that moves, 25 times a second, for so many seconds. */
const EACH = 40;
const SECONDS = 6;
const SOURCE = '01940000-0000-7000-8000-000000000001';

/**
 * The screens of a class in a thread of their own, so that the server's own is measured alone. Tells when all follow,
 * then how long each message took from who shows to each of them.
 */
const SCREENS = `
  const { parentPort, workerData } = require('node:worker_threads');
  const { WebSocket } = require('ws');
  const { base, url, cookies, each, seconds } = workerData;
  const open = (cookie, hear) => new Promise((come) => {
    const socket = new WebSocket(base.replace('http', 'ws') + url, { headers: { cookie, origin: base } });
    socket.on('message', (data) => {
      const told = JSON.parse(data.toString());
      if (told.type === 'state') come(socket);
      else hear(told);
    });
  });
  const pointer = (n) => ({ range: { start: n, end: n + 5 }, spot: {
    type: 'drawn', tool: 'pen', colour: 'ink', width: 0.1,
    tied: { to: 'words', words: [[0, 5]], strokes: [[[0, 0.2, 0.5, 0.5]]] } } });
  (async () => {
    const sent = [];
    const took = [];
    const hear = (told) => told.type === 'pointer' && took.push(performance.now() - sent[told.at.range.start]);
    const shows = await open(cookies[0], () => {});
    const sockets = await Promise.all(cookies.slice(1).map((cookie) => open(cookie, hear)));
    await new Promise((go) => parentPort.once('message', go).postMessage('here'));
    for (let n = 0; n < (seconds * 1000) / each; n++) {
      sent.push(performance.now());
      shows.send(JSON.stringify({ type: 'pointer', at: pointer(n) }));
      await new Promise((next) => setTimeout(next, each));
    }
    await new Promise((next) => setTimeout(next, 500));
    parentPort.postMessage({ took, of: sent.length * sockets.length });
    for (const socket of [shows, ...sockets]) socket.terminate();
  })();
`;

/** What a class of 300 sees of a pointer, and what that costs the server. */
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
  const screens = new Worker(SCREENS, {
    eval: true,
    workerData: { base, url, cookies, each: EACH, seconds: SECONDS },
  });
  const next = <T>(): Promise<T> =>
    new Promise((come, fail) => screens.once('message', come as (value: unknown) => void).once('error', fail));
  await next();
  const before = performance.eventLoopUtilization();
  screens.postMessage('go');
  const { took, of } = await next<{ took: number[]; of: number }>();
  const { utilization } = performance.eventLoopUtilization(before);
  if (took.length < of) throw new Error(`Of ${of} messages ${took.length} came.`);
  await screens.terminate();
  context.live.close();
  await app.close();
  context.db.close();
  fs.rmSync(dir, { recursive: true });
  return [
    atMost('live: pointer from a teacher to 299 screens, p95', percentile(took, 0.95), 'ms', 100),
    atMost('live: one core of the server, busy', 100 * utilization, '%', 50),
  ];
};
