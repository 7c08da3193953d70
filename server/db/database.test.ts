import { afterEach, expect, test } from '@jest/globals';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { backup, restore } from './backup';
import { readBlob, storeBlob } from './blobs';
import { openDatabase, type Db } from './database';
import { EventLog } from '../events/event-log';
import { migrate, readMigrations, schemaVersion } from './migrate';

const folders: string[] = [];
const folder = (): string => {
  const made = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-db-'));
  folders.push(made);
  return made;
};
afterEach(() => {
  for (const f of folders.splice(0)) fs.rmSync(f, { recursive: true });
});

/** Waits for what comes with a later turn of the event loop; a test that hangs is ended by its runner. */
async function until(found: () => boolean): Promise<void> {
  while (!found()) await new Promise((next) => setImmediate(next));
}

const opened = (file = ':memory:'): Db => {
  const db = openDatabase(file);
  migrate(db);
  return db;
};

test('what a transaction has read cannot be changed by another connection before it writes', () => {
  const file = path.join(folder(), 'a.db');
  const [db, other] = [opened(file), openDatabase(file)];
  other.raw.pragma('busy_timeout = 0');
  db.transaction(() => {
    expect(db.get('SELECT 1 FROM blob')).toBeUndefined();
    expect(() => storeBlob(other, Buffer.from('theirs'), 'text/plain')).toThrow(/locked/);
    storeBlob(db, Buffer.from('ours'), 'text/plain');
  });
  storeBlob(other, Buffer.from('theirs'), 'text/plain');
  expect(db.get('SELECT count(*) AS n FROM blob')).toEqual({ n: 2 });
  for (const one of [db, other]) one.close();
});

test('migrating twice changes nothing, and a newer database is refused', () => {
  const db = opened();
  const version = schemaVersion(db);
  expect(migrate(db)).toBe(version);
  db.raw.pragma(`user_version = ${version + 1}`);
  expect(() => migrate(db)).toThrow(/start the newer program/);
});

test('a migration that fails leaves nothing of itself', () => {
  const db = opened();
  const next = schemaVersion(db) + 1;
  const known = Array.from({ length: next - 1 }, (_, i) => ({ number: i + 1, sql: '' }));
  expect(() =>
    migrate(db, [...known, { number: next, sql: 'CREATE TABLE half (id TEXT); SELECT nonsense;' }]),
  ).toThrow();
  expect([schemaVersion(db), db.get("SELECT 1 FROM sqlite_master WHERE name = 'half'")]).toEqual([next - 1, undefined]);
});

test('a file is stored once by content and comes back to the byte, also over chunk borders', () => {
  const db = opened();
  const bytes = Buffer.alloc(600_000, 'marsh');
  const hash = storeBlob(db, bytes, 'text/plain');
  expect(storeBlob(db, bytes, 'text/plain')).toBe(hash);
  expect(db.get<{ n: number }>('SELECT count(*) AS n FROM blob_chunk')!.n).toBe(3);
  expect(readBlob(db, hash)!.bytes.equals(bytes)).toBe(true);
});

const person = (db: Db, id: string) =>
  db.run(
    "INSERT INTO person (id, email, name, password_hash, role, created_at) VALUES (?, ?, 'N', 'x', 'member', '2026')",
    id,
    `${id}@x.test`,
  );

test('backup and restore work under an open database', async () => {
  const dir = folder();
  const live = path.join(dir, 'live.db');
  const copy = path.join(dir, 'copy.db');
  const db = opened(live);
  person(db, 'before');
  await backup(live, copy);
  person(db, 'after');
  await restore(live, copy);
  expect(db.all<{ id: string }>('SELECT id FROM person').map((r) => r.id)).toEqual(['before']);
  expect(db.raw.pragma('integrity_check', { simple: true })).toBe('ok');
  person(db, 'again');
  db.close();
});

test('a restore wins over people who write all the time, whole, and is noticed by the running server', async () => {
  const dir = folder();
  const live = path.join(dir, 'live.db');
  const copy = path.join(dir, 'copy.db');
  const db = opened(live);
  const log = new EventLog(db, () => '2026');
  person(db, 'before');
  for (let n = 0; n < 50; n++) log.append({ type: 'desk', personId: 'before' });
  await backup(live, copy);
  for (let n = 0; n < 50; n++) log.append({ type: 'desk', personId: 'before' });
  const cursor = log.cursor();
  const told: string[] = [];
  log.subscribe({ hear: (events) => told.push(...events.map((e) => e.type)), restart: () => told.push('restart') });
  await until(() => told.length === 50);
  told.length = 0;
  // Four programs that write without a pause: as many connections, each holding the file as long as it can.
  const writers = Array.from(
    { length: 4 },
    () =>
      new Worker(
        `
    const Sqlite = require('better-sqlite3'), { workerData, parentPort } = require('node:worker_threads'), db = new Sqlite(workerData);
    db.pragma('busy_timeout = 5000');
    parentPort.postMessage('ready');
    parentPort.on('message', () => process.exit(0));
    (function write() { try { db.exec("INSERT INTO person (id, email, name, password_hash, role, created_at) VALUES (lower(hex(randomblob(9))), lower(hex(randomblob(9))), 'N', 'x', 'member', '2026')"); } catch {} setImmediate(write); })();`,
        { eval: true, workerData: live },
      ),
  );
  await Promise.all(writers.map((writer) => new Promise((ready) => writer.once('message', ready))));
  await restore(live, copy);
  await Promise.all(
    writers.map(
      (writer) =>
        new Promise((done) => {
          writer.once('exit', done);
          writer.postMessage('stop');
        }),
    ),
  );
  expect(db.get("SELECT 1 AS one FROM person WHERE id = 'before'")).toEqual({ one: 1 });
  expect(db.get<{ n: number }>('SELECT count(*) AS n FROM event')!.n).toBe(50);
  log.look();
  expect([told, log.seqOf(cursor)]).toEqual([['restart'], undefined]);
  log.append({ type: 'library', personId: 'before' });
  await until(() => told.length === 2);
  expect(told).toEqual(['restart', 'library']);
  expect(db.raw.pragma('integrity_check', { simple: true })).toBe('ok');
  log.close();
  db.close();
});

test('where nobody lets go of the database, a restore says so and changes nothing', async () => {
  const dir = folder();
  const live = path.join(dir, 'live.db');
  const copy = path.join(dir, 'copy.db');
  const db = opened(live);
  person(db, 'before');
  await backup(live, copy);
  person(db, 'after');
  db.raw.exec('BEGIN IMMEDIATE');
  await expect(restore(live, copy, 200)).rejects.toThrow(/nothing was changed: stop the server/);
  db.raw.exec('COMMIT');
  expect(db.all('SELECT id FROM person')).toHaveLength(2);
  expect(fs.readdirSync(dir).filter((name) => name.includes('restoring'))).toEqual([]);
  db.close();
});

test('more events at once than are read at once are all told', async () => {
  const db = opened();
  const log = new EventLog(db, () => '2026');
  let heard = 0;
  log.subscribe({
    hear: (events) => {
      heard += events.length;
    },
    restart: () => undefined,
  });
  db.transaction(() => {
    for (let n = 0; n < 2_500; n++) log.append({ type: 'desk', personId: 'p' });
  });
  await until(() => heard >= 2_500);
  expect(heard).toBe(2_500);
  log.close();
});

test('a backup is never overwritten, and what is no backup is refused with the live data untouched', async () => {
  const dir = folder();
  const live = path.join(dir, 'live.db');
  const copy = path.join(dir, 'copy.db');
  const wrong = path.join(dir, 'wrong.db');
  const db = opened(live);
  person(db, 'kept');
  await backup(live, copy);
  await expect(backup(live, copy)).rejects.toThrow(/exists already/);
  fs.writeFileSync(wrong, 'no database at all, just words'.repeat(100));
  await expect(restore(live, wrong)).rejects.toThrow(/not an intact Avrelle backup.*nothing was changed/);
  await expect(restore(live, path.join(dir, 'none.db'))).rejects.toThrow(/There is no file/);
  expect(db.all('SELECT id FROM person')).toHaveLength(1);
  db.close();
});

test('a library of the former schema keeps its sources, versions, shelves and annotations', () => {
  const db = openDatabase(':memory:');
  const [first, second] = readMigrations();
  migrate(db, [first!, second!]);
  db.raw.exec(`
    INSERT INTO person VALUES ('p', 'a@b.test', 'A', 'x', 'member', '2026');
    INSERT INTO blob VALUES ('h', 1, 'text/html');
    INSERT INTO source VALUES ('s', 'p', 'page', 'Marsh', 'A', 'Review', 'http://r.test/', 'https://r.test', '', 'en', NULL, '2026', 'v', 1, 9, 1, NULL);
    INSERT INTO source_version VALUES ('v', 's', 1, '2026', NULL, 'h');
    INSERT INTO version_text (version_id, title, stream, outline) VALUES ('v', 'Marsh', 'The marsh', '[]');
    INSERT INTO shelf VALUES ('p', 's', 'reading', 3, '[]', '2026');
    INSERT INTO annotation (id, source_id, version_id, author_id, kind, note, quote, created_at, updated_at) VALUES ('a', 's', 'v', 'p', 'claim', 'mine', 'marsh', '2026', '2026');
    INSERT INTO notification (id, person_id, annotation_id, created_at) VALUES ('n', 'p', 'a', '2026');`);
  migrate(db);
  expect(db.get('SELECT person_id, annotation_id, seen_at FROM notification')).toEqual({
    personId: 'p',
    annotationId: 'a',
    seenAt: null,
  });
  expect(db.get('SELECT kind, amount, title, doi, remark FROM source')).toEqual({
    kind: 'page',
    amount: 'whole',
    title: 'Marsh',
    doi: '',
    remark: '',
  });
  expect(
    db.get(
      "SELECT (SELECT count(*) FROM source_version) AS versions, (SELECT count(*) FROM shelf) AS shelves, (SELECT count(*) FROM annotation_visible WHERE person_id = 'p') AS seen",
    ),
  ).toEqual({ versions: 1, shelves: 1, seen: 1 });
  expect(db.raw.pragma('foreign_keys', { simple: true })).toBe(1);
  expect(() =>
    db.run(
      "INSERT INTO source_version (id, source_id, number, kept_at, snapshot_hash) VALUES ('w', 'nowhere', 1, '2026', 'h')",
    ),
  ).toThrow(/FOREIGN KEY/);
  db.close();
});
