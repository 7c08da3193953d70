import { spawn, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import Sqlite from 'better-sqlite3';
import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** A real installation of its own, as `npm start` runs it; resolves with its address once it listens. */
async function start(data: string): Promise<{ process: ChildProcess; base: string }> {
  const child = spawn('node', ['server/dist/main.js'], {
    cwd: ROOT,
    env: { ...process.env, AVRELLE_DATA: data, AVRELLE_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const base = await new Promise<string>((resolve, reject) => {
    child.stdout!.on('data', (out: Buffer) => {
      const found = /open at (http\S+)/.exec(out.toString());
      if (found) resolve(found[1]!);
    });
    child.once('exit', (code) => reject(new Error(`ended with ${code}`)));
  });
  return { process: child, base };
}

test('after kill -9 at any moment every acknowledged write is there', async () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-kill-'));
  const data = path.join(folder, 'data.db');
  let { process: server, base } = await start(data);
  const json = { 'content-type': 'application/json' };
  const made = await fetch(`${base}/api/people`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ email: 'first@college.saltmere.test', name: 'First', password: 'a long enough password' }),
  });
  expect(((await made.json()) as { role: string }).role).toBe('administrator');
  const cookie = made.headers.get('set-cookie')!.split(';')[0]!;
  const form = new FormData();
  form.append('file', new Blob(['The tide turns at seven.']), 'tide.txt');
  const upload = v7();
  await fetch(`${base}/api/uploads/${upload}`, { method: 'POST', headers: { cookie }, body: form });
  let sourceId: string | null = null;
  await expect
    .poll(
      async () =>
        (sourceId = (
          (await (await fetch(`${base}/api/jobs/${upload}`, { headers: { cookie } })).json()) as {
            sourceId: string | null;
          }
        ).sourceId),
    )
    .toBeTruthy();
  const source = (await (await fetch(`${base}/api/sources/${sourceId}`, { headers: { cookie } })).json()) as {
    id: string;
    versionId: string;
  };

  const acknowledged = new Set<string>();
  for (let round = 0; round < 4; round++) {
    let dead = false;
    const writers = Array.from({ length: 4 }, async () => {
      while (!dead) {
        const id = v7();
        const answer = await fetch(`${base}/api/annotations/${id}`, {
          method: 'PUT',
          headers: { ...json, cookie },
          body: JSON.stringify({
            sourceId: source.id,
            versionId: source.versionId,
            kind: 'claim',
            note: 'n',
            tags: ['t'],
            anchor: { quote: { exact: 'tide', prefix: 'The ', suffix: ' turns' }, position: { start: 4, end: 8 } },
            classIds: [],
          }),
        }).catch(() => undefined);
        if (answer?.status === 200) acknowledged.add(id);
      }
    });
    const before = acknowledged.size;
    const wanted = 5 + Math.floor(Math.random() * 60);
    await expect.poll(() => acknowledged.size - before, { intervals: [5] }).toBeGreaterThan(wanted);
    const gone = new Promise((done) => server.once('exit', done));
    server.kill('SIGKILL');
    await gone;
    dead = true;
    await Promise.all(writers);
    ({ process: server, base } = await start(data));
  }
  const there = (await (
    await fetch(`${base}/api/sources/${source.id}/annotations`, { headers: { cookie } })
  ).json()) as { id: string }[];
  const ids = new Set(there.map((a) => a.id));
  expect([...acknowledged].filter((id) => !ids.has(id))).toEqual([]);
  server.kill('SIGKILL');
  const db = new Sqlite(data, { readonly: true });
  expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
  db.close();
  fs.rmSync(folder, { recursive: true });
});
