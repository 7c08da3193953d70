import { createHash } from 'node:crypto';
import type { Db } from './database';

const CHUNK = 256 * 1024;

const INSERT_BLOB = 'INSERT INTO blob (hash, size, media_type) VALUES (?, ?, ?) ON CONFLICT (hash) DO NOTHING';
const INSERT_CHUNK = 'INSERT INTO blob_chunk (hash, seq, data) VALUES (?, ?, ?)';
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
  const row = db.get<{ media_type: string }>(BLOB, hash);
  if (!row) return undefined;
  const chunks = db.all<{ data: Buffer }>(CHUNKS, hash);
  return { bytes: Buffer.concat(chunks.map((c) => c.data)), mediaType: row.media_type };
}
