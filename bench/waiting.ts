import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { v7 } from 'uuid';
import { atMost, figure, percentile, type Bench } from './measure';

const FILES = 64;
const MEGABYTES = 20;
const AT_ONCE = 4;

/** A page that is as slow to take in as one may be: as many elements, styles and levels as are let in. */
const worstPage = (): string =>
  `<style>${Array.from({ length: 40_000 }, (_, n) => `.a${n}>p:nth-child(${n}){color:red}`).join('\n')}</style>${'<div>'.repeat(500)}${Array.from({ length: 60_000 }, (_, n) => `<p>tide ${n}</p>`).join('')}`;

interface Account {
  readonly cookie: string;
  send(method: string, url: string, body?: unknown): Promise<Response>;
}

async function account(base: string, name: string): Promise<Account> {
  const json = { 'content-type': 'application/json' };
  const made = await fetch(`${base}/api/people`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ email: `${name}@college.saltmere.test`, name, password: 'a long enough password' }),
  });
  const cookie = made.headers.get('set-cookie')!.split(';')[0]!;
  return {
    cookie,
    send: (method, url, body) =>
      fetch(base + url, {
        method,
        headers: { cookie, ...(body ? json : {}) },
        ...(body ? { body: JSON.stringify(body) } : {}),
      }),
  };
}

async function upload(base: string, { cookie }: Account, name: string, bytes: Uint8Array): Promise<void> {
  const form = new FormData();
  form.append('file', new Blob([bytes as Uint8Array<ArrayBuffer>]), name);
  await (await fetch(`${base}/api/uploads/${v7()}`, { method: 'POST', headers: { cookie }, body: form })).text();
}

interface Waited {
  readonly reads: readonly number[];
  readonly writes: readonly number[];
}

/** Milliseconds that reading a list and writing a name take, again and again until `work` ends. */
async function othersWait(other: Account, work: Promise<unknown>): Promise<Waited> {
  const reads: number[] = [];
  const writes: number[] = [];
  const id = v7();
  let busy = true;
  let version = 0;
  void work.finally(() => {
    busy = false;
  });
  const timed = async (into: number[], ask: () => Promise<Response>): Promise<void> => {
    const start = performance.now();
    await (await ask()).text();
    into.push(performance.now() - start);
  };
  await other.send('PUT', `/api/classes/${id}`, { name: 'Field Course', tint: 'tide' });
  while (busy) {
    await timed(reads, () => other.send('GET', '/api/sources'));
    version += 1;
    await timed(writes, () =>
      other.send('PUT', `/api/classes/${id}`, { version, name: `Field Course ${version}`, tint: 'tide' }),
    );
    await new Promise((later) => setTimeout(later, 40));
  }
  return { reads, writes };
}

/** The worst page, and many files, a few at a time. */
async function uploadAll(base: string, loader: Account): Promise<void> {
  const left = Array.from({ length: FILES }, (_, n) => n);
  const some = async (): Promise<void> => {
    for (let n = left.shift(); n !== undefined; n = left.shift()) {
      const sound = Buffer.concat([Buffer.from('RIFF'), randomBytes(MEGABYTES * 1024 * 1024)]);
      await upload(base, loader, `sound-${n}.wav`, sound);
    }
  };
  await Promise.all([
    upload(base, loader, 'worst.html', Buffer.from(worstPage())),
    ...Array.from({ length: AT_ONCE }, some),
  ]);
}

/** What somebody else waits for while one person uploads 64 files of 20 MB and keeps the worst page. */
export const waiting: Bench = async () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-bench-'));
  const env = { ...process.env, AVRELLE_DATA: path.join(folder, 'a.db'), AVRELLE_PORT: '0' };
  const server = spawn('node', ['server/dist/main.js'], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  try {
    const base = await new Promise<string>((ready) =>
      server.stdout.on('data', (out: Buffer) => {
        const found = /open at (http\S+)/.exec(out.toString());
        if (found) ready(found[1]!);
      }),
    );
    const loader = await account(base, 'loader');
    const other = await account(base, 'other');
    const begun = performance.now();
    const { reads, writes } = await othersWait(other, uploadAll(base, loader));
    const seconds = (performance.now() - begun) / 1000;
    return [
      figure(`${FILES} files of ${MEGABYTES} MB and the worst page uploaded`, seconds, 's'),
      atMost('what others wait for meanwhile, p95: a list', percentile(reads, 0.95), 'ms', 100),
      atMost('what others wait for meanwhile, p95: a write', percentile(writes, 0.95), 'ms', 100),
      figure('the longest of both', Math.max(...reads, ...writes), 'ms'),
    ];
  } finally {
    server.kill('SIGKILL');
    fs.rmSync(folder, { recursive: true, force: true });
  }
};
