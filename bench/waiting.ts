import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { v7 } from 'uuid';
import { atMost, figure, percentile, type Bench } from './measure';

const FILES = 64, MEGABYTES = 20, AT_ONCE = 4;

/** A page that is as slow to take in as one may be: as many elements, styles and levels as are let in. */
const worstPage = (): string => `<style>${Array.from({ length: 40_000 }, (_, n) => `.a${n}>p:nth-child(${n}){color:red}`).join('\n')}</style>${'<div>'.repeat(500)}${Array.from({ length: 60_000 }, (_, n) => `<p>tide ${n}</p>`).join('')}`;

interface Account {
  readonly cookie: string;
  send(method: string, url: string, body?: unknown): Promise<Response>;
}

async function account(base: string, name: string): Promise<Account> {
  const json = { 'content-type': 'application/json' };
  const made = await fetch(`${base}/api/people`, { method: 'POST', headers: json, body: JSON.stringify({ email: `${name}@college.saltmere.test`, name, password: 'a long enough password' }) });
  const cookie = made.headers.get('set-cookie')!.split(';')[0]!;
  return { cookie, send: (method, url, body) => fetch(base + url, { method, headers: { cookie, ...(body ? json : {}) }, ...(body ? { body: JSON.stringify(body) } : {}) }) };
}

async function upload(base: string, { cookie }: Account, name: string, bytes: Uint8Array): Promise<void> {
  const form = new FormData();
  form.append('file', new Blob([bytes as Uint8Array<ArrayBuffer>]), name);
  await (await fetch(`${base}/api/uploads/${v7()}`, { method: 'POST', headers: { cookie }, body: form })).text();
}

/** What somebody else waits for, reading and writing, while one person uploads 64 files of 20 MB and keeps the worst page. */
export const waiting: Bench = async () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-bench-'));
  const server = spawn('node', ['server/dist/main.js'], { env: { ...process.env, AVRELLE_DATA: path.join(folder, 'a.db'), AVRELLE_PORT: '0' }, stdio: ['ignore', 'pipe', 'inherit'] });
  try {
    const base = await new Promise<string>((ready) => server.stdout.on('data', (out: Buffer) => { const found = /open at (http\S+)/.exec(out.toString()); if (found) ready(found[1]!); }));
    const [loader, other] = [await account(base, 'loader'), await account(base, 'other')];
    const reads: number[] = [], writes: number[] = [], class_ = v7();
    let busy = true, version = 0;
    await other.send('PUT', `/api/classes/${class_}`, { name: 'Field Course', tint: 'tide' });
    const left = Array.from({ length: FILES }, (_, n) => n);
    const uploading = async (): Promise<void> => { for (let n = left.shift(); n !== undefined; n = left.shift()) await upload(base, loader, `sound-${n}.wav`, Buffer.concat([Buffer.from('RIFF'), randomBytes(MEGABYTES * 1024 * 1024)])); };
    const work = Promise.all([upload(base, loader, 'worst.html', Buffer.from(worstPage())), ...Array.from({ length: AT_ONCE }, uploading)]).finally(() => { busy = false; });
    const begun = performance.now();
    while (busy) {
      for (const [took, ask] of [[reads, () => other.send('GET', '/api/sources')], [writes, () => other.send('PUT', `/api/classes/${class_}`, { version: (version += 1), name: `Field Course ${version}`, tint: 'tide' })]] as const) {
        const start = performance.now();
        await (await ask()).text();
        took.push(performance.now() - start);
      }
      await new Promise((later) => setTimeout(later, 40));
    }
    await work;
    return [
      figure(`${FILES} files of ${MEGABYTES} MB and the worst page uploaded`, (performance.now() - begun) / 1000, 's'),
      atMost('what others wait for meanwhile, p95: a list', percentile(reads, 0.95), 'ms', 100), atMost('what others wait for meanwhile, p95: a write', percentile(writes, 0.95), 'ms', 100), figure('the longest of both', Math.max(...reads, ...writes), 'ms'),
    ];
  } finally {
    server.kill('SIGKILL');
    fs.rmSync(folder, { recursive: true, force: true });
  }
};
