import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { v7 } from 'uuid';
import { describe, indexText } from '@avrelle/core/anchor';
import { range } from '@avrelle/core/text';
import { THREAD_SORTS } from '@avrelle/core/wire';

import { buildApp } from '../server/app';
import { putAnnotation } from '../server/annotations/write';
import { insertPerson, insertSession } from '../server/accounts/queries';
import { addClassSource, insertClass, joinClass } from '../server/classes/queries';
import { readConfig } from '../server/config';
import type { Context } from '../server/context';
import { LARGE, seedLarge } from '../demo/large';
import { threadsOf } from '../server/discussion/queries';
import { askerOf } from '../server/find/asker-of';
import { annotationPage, readQuery, sourcePage } from '../server/find/find';
import type { Ingested } from '../server/ingest/ingested';
import { directIngester } from '../server/ingest/ingester';
import { openContext } from '../server/open-context';
import { sourceDetail } from '../server/sources/queries';
import { storeSource } from '../server/sources/store';
import { createHash } from 'node:crypto';
import http from 'node:http';
import { atLeast, atMost, figure, percentile, prose, seeded, time, word, type Bench } from './measure';

const now = '2026-11-23T10:00:00.000Z';
const EMPTY_META = {
  title: 'A source',
  author: '',
  site: '',
  description: '',
  language: 'en',
  publishedAt: null,
  canonical: null,
  doi: '',
  lead: null,
};

export function open(file: string): Context {
  const config = readConfig({ AVRELLE_DATA: file, AVRELLE_WEB: '/nowhere' });
  return openContext({ config, ingester: directIngester(config) });
}

export const folder = (): string => fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-bench-'));

export function person(context: Context, n: number): string {
  const id = v7();
  insertPerson(context.db, { id, name: `Reader ${n}`, email: `r${n}@college.saltmere.test`, role: 'member' }, 'x', now);
  return id;
}

export function store(context: Context, ownerId: string, title: string, text: string): string {
  const id = v7();
  const ingested: Ingested = {
    kind: 'text',
    snapshot: `<p>${id}</p>`,
    assets: [],
    text,
    outline: [{ start: 0, end: text.length, role: 'paragraph', path: '0' }],
    inlines: [],
    minutes: 5,
    address: null,
    canonical: null,
    meta: { ...EMPTY_META, title },
    lead: null,
    missing: [],
    amount: 'whole',
    facts: {},
    file: null,
    fingerprint: '',
    width: null,
  };
  storeSource(context, { id, ownerId, tags: [], ingested });
  return id;
}

/** Durable annotations through the whole write path, against bare inserts of the same rows in the same run. */
export const write: Bench = async () => {
  const dir = folder();
  const context = open(path.join(dir, 'a.db'));
  const random = seeded(3);
  const me = { id: person(context, 1), name: 'R', email: 'r', role: 'member' as const };
  const text = prose(20_000, random);
  const source = sourceDetail(context.db, me.id, store(context, me.id, 's', text))!;
  const index = indexText(text);
  const anchors = Array.from({ length: 800 }, () => {
    const at = Math.floor(random() * 19_000);
    return describe(index, range(at, at + 60));
  });
  const ours = await time(() => {
    for (const anchor of anchors)
      putAnnotation(context, me, v7(), {
        sourceId: source.id,
        versionId: source.versionId,
        kind: 'claim',
        note: 'A note of some words.',
        tags: ['t'],
        anchor,
        classIds: [],
      });
  });
  const bare = new Sqlite(path.join(dir, 'b.db'));
  bare.pragma('journal_mode = WAL');
  bare.pragma('synchronous = FULL');
  bare.exec(
    'CREATE TABLE annotation (id TEXT PRIMARY KEY, source TEXT, version TEXT, author TEXT, kind TEXT, note TEXT, quote TEXT, anchor TEXT, start INTEGER)',
  );
  const insert = bare.prepare('INSERT INTO annotation VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)');
  const raw = await time(() => {
    for (const a of anchors)
      insert.run(
        v7(),
        source.id,
        source.versionId,
        me.id,
        'claim',
        'A note of some words.',
        a.quote.exact,
        JSON.stringify(a),
        a.position.start,
      );
  });
  context.db.close();
  bare.close();
  fs.rmSync(dir, { recursive: true });
  return [
    figure('create an annotation, durable', ours / anchors.length, 'ms'),
    atLeast('rate of that, of bare better-sqlite3 inserts of the same rows', (100 * raw) / ours, '%', 25),
  ];
};

/** A school after two years, searched by people who may see a tenth of it: the first page of annotations and of sources, both counted. */
export const searching: Bench = () => {
  const dir = folder();
  const context = open(path.join(dir, 'a.db'));
  const { db } = context;
  const people = seedLarge(context, LARGE, seeded(4));
  const words = [0.15, 0.3, 0.5, 0.7, 0.9].map(word);
  const queries = words
    .flatMap((w, n) => [
      w,
      `${w} ${word(0.2 + n / 10)}`,
      `${w} OR ${word(0.9 - n / 10)}`,
      `note:${w}`,
      `is:reading ${w}`,
      `"${w}"`,
    ])
    .concat(word(0.4).slice(0, 4), '');
  const times: number[] = [];
  const lists: number[] = [];
  const slowest = new Map<string, number>();
  for (let round = 0; round < 6; round++) {
    const asker = askerOf({ db, now: () => now }, people[round]!, { ahead: 0 });
    for (const q of queries) {
      const query = readQuery(q);
      const start = performance.now();
      annotationPage(db, query, asker, { sort: q ? 'best' : 'newest', offset: 0, limit: 30 });
      const between = performance.now();
      sourcePage(db, query, asker, { sort: q ? 'best' : 'touched', offset: 0, limit: 30, passages: true });
      if (round > 0) {
        times.push(between - start);
        lists.push(performance.now() - between);
        slowest.set(q, Math.max(slowest.get(q) ?? 0, performance.now() - start));
      }
    }
  }
  const threads: number[] = [];
  for (let round = 0; round < 24; round++) {
    const asker = askerOf({ db, now: () => now }, people[round % 6]!, { ahead: 0 });
    const started = performance.now();
    const sort = THREAD_SORTS[round % THREAD_SORTS.length]!;
    threadsOf(db, asker, { classId: asker.classes[0]!, query: undefined, sort, offset: 0, limit: 60 });
    threads.push(performance.now() - started);
  }
  if (process.env.BENCH_SHOW) console.log([...slowest].sort((a, b) => b[1] - a[1]).slice(0, 12));
  db.close();
  fs.rmSync(dir, { recursive: true });
  const size = '5,000 sources and 100,000 annotations of 200 people, a tenth visible';
  return [
    atMost(`search ${size}: annotations, first page and count, p95`, percentile(times, 0.95), 'ms', 30),
    atMost('the same: sources, first page with passages, and count, p95', percentile(lists, 0.95), 'ms', 30),
    atMost('the threads of a class with 10,000 annotations, p95', percentile(threads, 0.95), 'ms', 100),
    figure('the same, medians', percentile(times, 0.5) + percentile(lists, 0.5), 'ms'),
  ];
};

/** Opens an event stream for each; `waits` holds who waits to hear of an annotation, by its id. */
async function listening(base: string, cookies: readonly string[]) {
  const waits = new Map<string, ((at: number) => void)[]>();
  const agent = new http.Agent({ keepAlive: true, maxSockets: 400 });
  await Promise.all(
    cookies.map(
      (cookie) =>
        new Promise<void>((ready) => {
          http.get(`${base}/api/events`, { agent, headers: { cookie } }, (stream) =>
            stream.on('data', (part: Buffer) => {
              if (part.includes('event: ready')) ready();
              const heard = /"id":"([0-9a-f-]{36})"/.exec(part.toString())?.[1];
              if (heard) waits.get(heard)?.pop()?.(performance.now());
            }),
          );
        }),
    ),
  );
  return { waits, agent };
}

/** A class of so many, the first of them its teacher, all of them signed in. */
export function largeClass(context: Context, count = 300) {
  const { db } = context;
  const people = Array.from({ length: count }, (_, n) => person(context, n));
  const classId = v7();
  insertClass(db, { id: classId, code: 'ABCDEF', personId: people[0]! }, { name: 'All', tint: 'tide' }, now);
  people.forEach((p, n) => joinClass(db, { classId, personId: p, role: n === 0 ? 'teacher' : 'student' }, now));
  const cookies = people.map((p) => {
    insertSession(db, {
      tokenHash: createHash('sha256').update(p).digest('hex'),
      id: p,
      personId: p,
      now,
      expiresAt: '2099-01-01',
      agent: '',
    });
    return `avrelle_session=${p}`;
  });
  return { people, classId, cookies };
}

/** From a write to the event on 300 open pages that follow one class. */
export const tell: Bench = async () => {
  const dir = folder();
  const context = open(path.join(dir, 'a.db'));
  const { db } = context;
  const { people, classId, cookies } = largeClass(context);
  const id = store(context, people[0]!, 's', prose(5000, seeded(5)));
  addClassSource(db, { classId, sourceId: id, personId: people[0]! }, now);
  const app = await buildApp(context);
  const base = await app.listen({ port: 0, host: '127.0.0.1' });
  const { waits, agent } = await listening(base, cookies);
  const source = sourceDetail(db, people[0]!, id)!;
  const text = (await app.inject({ url: `/api/sources/${id}/text`, headers: { cookie: cookies[0]! } })).json<{
    text: string;
  }>().text;
  const index = indexText(text);
  const times: number[] = [];
  for (let n = 0; n < 10; n++) {
    const mark = v7();
    const anchor = describe(index, range(10 + n, 60 + n));
    const started = performance.now();
    const all = Promise.all(
      people.map(() => new Promise<number>((heard) => waits.set(mark, [...(waits.get(mark) ?? []), heard]))),
    );
    putAnnotation(context, { id: people[0]!, name: 'R', email: 'r', role: 'member' }, mark, {
      sourceId: id,
      versionId: source.versionId,
      kind: 'claim',
      note: 'n',
      tags: [],
      anchor,
      classIds: [classId],
    });
    times.push(...(await all).map((at) => at - started));
  }
  agent.destroy();
  await app.close();
  db.close();
  fs.rmSync(dir, { recursive: true });
  return [atMost('300 readers of one class source, write to event, p95', percentile(times, 0.95), 'ms', 100)];
};
