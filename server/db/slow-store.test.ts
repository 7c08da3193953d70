import { expect, test } from '@jest/globals';
import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { hashOf, readBlob, storeBlob } from './blobs';
import { openDatabase, type Db } from './database';
import { migrate } from './migrate';
import { storeFile, storeIngested } from './slow-store';
import { removeLeftChunks, removeOrphans } from './unused';
import type { Ingested } from '../ingest/ingested';

function opened(): Db {
  const db = openDatabase(':memory:');
  migrate(db);
  return db;
}
const chunks = (db: Db): number => db.get<{ n: number }>('SELECT count(*) AS n FROM blob_chunk')!.n;

test('a file of several megabytes is stored to the byte, once, and others write in between', async () => {
  const db = opened();
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-store-'));
  const file = path.join(folder, 'a');
  const bytes = randomBytes(3_500_001);
  fs.writeFileSync(file, bytes);
  let turns = 0;
  const beat = setInterval(() => {
    turns += db.run(
      "INSERT INTO person (id, email, name, password_hash, role, created_at) VALUES (lower(hex(randomblob(9))), lower(hex(randomblob(9))), 'N', 'x', 'member', '2026')",
    );
  }, 1);
  const hash = await storeFile(db, file, 'audio/wav');
  clearInterval(beat);
  expect([hash, readBlob(db, hash)!.bytes.equals(bytes), turns > 0]).toEqual([hashOf(bytes), true, true]);
  const before = chunks(db);
  expect([await storeFile(db, file, 'audio/wav'), chunks(db)]).toEqual([hash, before]);
  expect(db.raw.pragma('foreign_keys', { simple: true })).toBe(1);
  fs.rmSync(folder, { recursive: true });
});

test('what a crash left of a file is no blob: it goes on where it is stored again, or is swept away', () => {
  const db = opened();
  const bytes = randomBytes(600_000);
  const hash = hashOf(bytes);
  db.raw.pragma('foreign_keys = OFF');
  db.run('INSERT INTO blob_chunk (hash, seq, data) VALUES (?, 0, ?)', hash, bytes.subarray(0, 256 * 1024));
  db.raw.pragma('foreign_keys = ON');
  expect(readBlob(db, hash)).toBeUndefined();
  expect([storeBlob(db, bytes, 'x/y'), readBlob(db, hash)!.bytes.equals(bytes)]).toEqual([hash, true]);
  db.run('DELETE FROM blob');
  expect(chunks(db)).toBe(0);
  db.raw.pragma('foreign_keys = OFF');
  db.run('INSERT INTO blob_chunk (hash, seq, data) VALUES (?, 0, ?)', hash, bytes.subarray(0, 10));
  expect([removeLeftChunks(db), chunks(db)]).toEqual([1, 0]);
});

test('a file that nothing refers to is removed when it was so the time before as well', () => {
  const db = opened();
  const first = storeBlob(db, Buffer.from('first'), 'x/y');
  const seen = removeOrphans(db, new Set());
  const second = storeBlob(db, Buffer.from('second'), 'x/y');
  expect([[...seen], [...removeOrphans(db, seen)], readBlob(db, first), readBlob(db, second) !== undefined]).toEqual([
    [first],
    [second],
    undefined,
    true,
  ]);
});

test('all files of what was taken in are stored and named; what was only shaped keeps those it has', async () => {
  const db = opened();
  const picture = Buffer.from('a picture');
  const hash = hashOf(picture);
  const ingested = {
    snapshot: '<p>tide</p>',
    assets: [{ hash, bytes: picture, mediaType: 'image/png' }],
    file: { bytes: Buffer.from('the file'), mediaType: 'x/y' },
  } as unknown as Ingested;
  const kept = await storeIngested(db, ingested);
  expect([kept.snapshot, kept.assets[0]!.bytes.byteLength, kept.stored]).toEqual([
    '',
    0,
    { snapshot: hashOf(Buffer.from('<p>tide</p>')), assets: [hash], file: hashOf(Buffer.from('the file')) },
  ]);
  const shaped = await storeIngested(db, { ...kept, snapshot: '<p>less</p>' });
  expect(shaped.stored).toEqual({ ...kept.stored, snapshot: hashOf(Buffer.from('<p>less</p>')) });
  expect(readBlob(db, shaped.stored!.snapshot)!.bytes.toString()).toBe('<p>less</p>');
});
