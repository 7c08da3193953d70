import { afterAll, afterEach, beforeAll, expect, test } from '@jest/globals';
import { once } from 'node:events';
import fs from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { PoolIngester, type PoolOptions } from './pool-ingester';

let folder: string;
let count = 0;
beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-pool-'));
});
afterAll(() => fs.rmSync(folder, { recursive: true }));

/** A pool whose threads do with a task what the script says. */
const open: PoolIngester[] = [];
function pool(does: string, options: PoolOptions = {}, privateHosts: string[] = []): PoolIngester {
  const script = path.join(folder, `${(count += 1)}.mjs`);
  fs.writeFileSync(
    script,
    `import { threadId } from 'node:worker_threads'; const does = ${does}; export default async ({ task, port }) => { port.postMessage({ step: '', share: 0 }); const result = await does(task, threadId); port.close(); return { type: 'done', result }; };`,
  );
  const made = new PoolIngester(new URL(`file://${script}`), { names: [], privateHosts }, ':memory:', {
    longest: 700,
    threads: 2,
    ...options,
  });
  open.push(made);
  return made;
}
afterEach(() => Promise.all(open.splice(0).map((one) => one.close())));
const code = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (e: { code?: string }) => e.code ?? 'broken',
  );

test('a task that never ends is given up with its thread; what stands beside it is done, and goes on', async () => {
  const one = pool(
    "(t) => { if (t.before === 'hangs') for (;;); return new Promise((done) => setTimeout(() => done([t.before]), 400)); }",
  );
  const [hangs, beside] = [code(one.compare('hangs', '')), one.compare('beside', '')];
  expect([await beside, await hangs]).toEqual([['beside'], 'too_slow']);
  expect(await one.compare('after', '')).toEqual(['after']);
});

test('a task that takes too much memory ends alone, and says so in its own name', async () => {
  const one = pool(
    "(t) => { if (t.asked.before === 'heavy') { const all = []; for (;;) all.push(new Array(100000).fill(Math.random())); } return new Promise((done) => setTimeout(() => done({ marks: [], reads: [] }), 800)); }",
    { memory: 48, longest: 30_000 },
  );
  const asked = (before: string) => one.follow({ before, after: '', outline: [], marks: [], reads: [] });
  const [heavy, beside] = [code(asked('heavy')), asked('light')];
  expect([await beside, await heavy]).toEqual([{ marks: [], reads: [] }, 'too_heavy']);
});

test('while what a page shows with is fetched, no thread waits for it', async () => {
  let asked: (answer: () => void) => void;
  const picture = new Promise<() => void>((resolve) => (asked = resolve));
  const site = http
    .createServer(({ url }, answer) => {
      if (url === '/') return void answer.setHeader('content-type', 'text/html').end('<img src=a.png>');
      asked(() => answer.setHeader('content-type', 'image/png').end('bytes'));
    })
    .listen(0, '127.0.0.1');
  await once(site, 'listening');
  const { port } = site.address() as AddressInfo;
  const address = `http://127.0.0.1:${port}`;
  const script = `(t) => t.type === 'wanted' ? [{ address: '${address}/a.png', accept: 'image/*' }] : t.parts?.map((p) => p.got.bytes.byteLength) ?? [t.before]`;
  const one = pool(script, { threads: 1 }, [`127.0.0.1:${port}`]);
  const page = one.run({ type: 'address', address }, () => undefined);
  const answer = await picture;
  expect(await one.compare('beside', '')).toEqual(['beside']);
  answer();
  expect(await page).toEqual([5]);
  site.close();
});

test('a task has its whole time, however long it waited for a thread', async () => {
  const one = pool('(t) => new Promise((done) => setTimeout(() => done([t.before]), 450))', { threads: 1 });
  expect(await Promise.all(['a', 'b', 'c'].map((name) => one.compare(name, '')))).toEqual([['a'], ['b'], ['c']]);
});
