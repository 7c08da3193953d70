import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { buildApp } from '../server/app';
import { readConfig } from '../server/config';
import { PoolIngester } from '../server/ingest/pool-ingester';
import { openContext } from '../server/open-context';
import { serveLittleWeb } from '../standins/web/serve';

/** A whole server in this process, its worker beside it, and somebody signed in. */
export async function startWhole() {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-bench-'));
  const web = await serveLittleWeb(
    {
      sites: 'standins/web/sites',
      font: 'node_modules/@fontsource-variable/literata/files/literata-latin-wght-normal.woff2',
    },
    0,
  );
  const config = readConfig({
    AVRELLE_DATA: path.join(folder, 'a.db'),
    AVRELLE_NAMES: `saltmere.test=127.0.0.1:${web.port}`,
    AVRELLE_PORT: '0',
  });
  const context = openContext({
    config,
    ingester: new PoolIngester(new URL('./ingest-worker.js', import.meta.url), config, config.dataFile),
  });
  const app = await buildApp(context);
  await app.listen({ port: 0, host: '127.0.0.1' });
  context.jobs.start();
  const base = `http://127.0.0.1:${(app.server.address() as { port: number }).port}`;
  const account = { email: 'bench@college.saltmere.test', name: 'Bench', password: 'a long enough password' };
  const answer = await fetch(`${base}/api/people`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(account),
  });
  const cookie = answer.headers.get('set-cookie')!.split(';')[0]!;
  const send = async <T>(method: string, url: string, body?: unknown): Promise<T> => {
    const form = body instanceof FormData;
    const got = await fetch(base + url, {
      method,
      headers: { cookie, ...(body && !form ? { 'content-type': 'application/json' } : {}) },
      ...(body ? { body: form ? body : JSON.stringify(body) } : {}),
    });
    return got.json() as Promise<T>;
  };
  const ended = async (id: string): Promise<{ sourceId: string }> => {
    for (;;) {
      const job = await send<{ state: string; sourceId: string; step: string }>('GET', `/api/jobs/${id}`);
      if (job.state === 'done') return job;
      if (job.state === 'failed') throw new Error(job.step);
      await new Promise((later) => setTimeout(later, 50));
    }
  };
  return {
    base,
    account,
    send,
    ended,
    close: async () => {
      await context.jobs.stop();
      await app.close();
      await web.close();
      fs.rmSync(folder, { recursive: true });
    },
  };
}

/** Frames while the wheel turns through a document: 60 pixels a frame, three screens a second and more. */
export const framesOf = (page: Page): Promise<number[]> =>
  page.evaluate(async () => {
    const scroller = document.querySelector('iframe')!.closest('.overflow-y-auto')!;
    const frames: number[] = [];
    let last = performance.now();
    for (let n = 0; n < 90; n++) {
      scroller.scrollBy(0, 60);
      await new Promise<void>((done) => requestAnimationFrame(() => done()));
      const now = performance.now();
      frames.push(now - last);
      last = now;
    }
    return frames.slice(5);
  });
