import { createHash } from 'node:crypto';
import fs from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import type { Ingested } from '../ingest/ingested';
import { CHUNK, hashOf } from './blobs';
import type { Db } from './database';

const INSERT_BLOB = 'INSERT INTO blob (hash, size, media_type) VALUES (?, ?, ?) ON CONFLICT (hash) DO NOTHING';
const INSERT_CHUNK = 'INSERT INTO blob_chunk (hash, seq, data) VALUES (?, ?, ?) ON CONFLICT DO NOTHING';
const HAS = 'SELECT 1 AS one FROM blob WHERE hash = ?';

/** Bytes written in one go; between two goes others may write. */
const AT_ONCE = 4 * CHUNK;
const BREATH = 8;

/** Reads `[start, end)` of what is stored. */
type Part = (start: number, end: number) => Buffer;

interface NewBlob {
  readonly hash: string;
  readonly size: number;
  readonly mediaType: string;
}

/**
 * Stores much without keeping others from writing: a little at a time. The row that says that it is whole comes last;
 * what a crash leaves without one is no blob, and goes on where it is stored again.
 */
async function storeSlowly(db: Db, { hash, size, mediaType }: NewBlob, part: Part): Promise<void> {
  if (db.get(HAS, hash)) return;
  db.raw.pragma('foreign_keys = OFF');
  try {
    for (let at = 0; at < size; at += AT_ONCE) {
      db.transaction(() => {
        for (let from = at; from < Math.min(size, at + AT_ONCE); from += CHUNK)
          db.run(INSERT_CHUNK, hash, from / CHUNK, part(from, Math.min(size, from + CHUNK)));
      });
      if (at + AT_ONCE < size) await pause(BREATH);
    }
    db.run(INSERT_BLOB, hash, size, mediaType);
  } finally {
    db.raw.pragma('foreign_keys = ON');
  }
}

/** Stores a file of the disk; gives its SHA-256 (hex). */
export async function storeFile(db: Db, file: string, mediaType: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const part of fs.createReadStream(file, { highWaterMark: CHUNK })) hash.update(part as Buffer);
  const name = hash.digest('hex');
  const handle = fs.openSync(file, 'r');
  try {
    await storeSlowly(db, { hash: name, size: fs.fstatSync(handle).size, mediaType }, (start, end) => {
      const bytes = Buffer.alloc(end - start);
      fs.readSync(handle, bytes, 0, bytes.length, start);
      return bytes;
    });
  } finally {
    fs.closeSync(handle);
  }
  return name;
}

async function storeBytes(db: Db, bytes: Uint8Array, mediaType: string): Promise<string> {
  const hash = hashOf(bytes);
  await storeSlowly(db, { hash, size: bytes.byteLength, mediaType }, (start, end) =>
    Buffer.from(bytes.subarray(start, end)),
  );
  return hash;
}

/** Stores all files of what was taken in, so that only their hashes have to be sent on and referred to. */
export async function storeIngested(db: Db, ingested: Ingested): Promise<Ingested> {
  const { snapshot, assets, file, stored } = ingested;
  // What is only shaped has its pictures and its file in the database already.
  if (!stored) for (const { bytes, mediaType } of assets) await storeBytes(db, bytes, mediaType);
  const files = {
    snapshot:
      snapshot === '' && stored ? stored.snapshot : await storeBytes(db, Buffer.from(snapshot, 'utf8'), 'text/html'),
    assets: assets.map((asset) => asset.hash),
    file: stored ? stored.file : file && (await storeBytes(db, file.bytes, file.mediaType)),
  };
  const none = new Uint8Array(0);
  return {
    ...ingested,
    snapshot: '',
    assets: assets.map((asset) => ({ ...asset, bytes: none })),
    file: file && { ...file, bytes: none },
    stored: files,
  };
}
