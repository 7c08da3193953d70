import { createHash } from 'node:crypto';
import type { Db } from './database';

/** Bytes of a row; the last one has what is left. */
export const CHUNK = 256 * 1024;

const INSERT_BLOB = 'INSERT INTO blob (hash, size, media_type) VALUES (?, ?, ?) ON CONFLICT (hash) DO NOTHING';
const INSERT_CHUNK = 'INSERT INTO blob_chunk (hash, seq, data) VALUES (?, ?, ?) ON CONFLICT DO NOTHING';
const BLOB = 'SELECT size, media_type FROM blob WHERE hash = ?';
const CHUNKS = 'SELECT data FROM blob_chunk WHERE hash = ? ORDER BY seq';

export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Stores bytes once by their SHA-256 (hex), which is returned. Call inside the transaction that refers to them. */
export function storeBlob(db: Db, bytes: Uint8Array, mediaType: string): string {
  const hash = hashOf(bytes);
  if (db.run(INSERT_BLOB, hash, bytes.byteLength, mediaType) === 0) return hash;
  for (let at = 0, seq = 0; at < bytes.byteLength; at += CHUNK, seq++) {
    db.run(INSERT_CHUNK, hash, seq, Buffer.from(bytes.subarray(at, at + CHUNK)));
  }
  return hash;
}

export function readBlob(db: Db, hash: string): { readonly bytes: Buffer; readonly mediaType: string } | undefined {
  const row = db.get<{ mediaType: string }>(BLOB, hash);
  if (!row) return undefined;
  const chunks = db.all<{ data: Buffer }>(CHUNKS, hash);
  return { bytes: Buffer.concat(chunks.map((c) => c.data)), mediaType: row.mediaType };
}

const RANGE = 'SELECT seq, data FROM blob_chunk WHERE hash = ? AND seq BETWEEN ? AND ? ORDER BY seq';

/** In bytes; undefined for a hash that is not stored. */
export const sizeOfBlob = (db: Db, hash: string): number | undefined => db.get<{ size: number }>(BLOB, hash)?.size;

/** Bytes `[start, end)` of a blob; only the chunks they lie in are read. */
export function readBlobRange(db: Db, hash: string, start: number, end: number): Buffer {
  const first = Math.floor(start / CHUNK);
  const chunks = db.all<{ data: Buffer }>(RANGE, hash, first, Math.floor(Math.max(start, end - 1) / CHUNK));
  return Buffer.concat(chunks.map((c) => c.data)).subarray(start - first * CHUNK, end - first * CHUNK);
}
