import type { Db } from './database';

/** Every column that refers to a blob. */
const UNUSED = `
  NOT EXISTS (SELECT 1 FROM source_version WHERE snapshot_hash = hash) AND NOT EXISTS (SELECT 1 FROM source_version WHERE file_hash = blob.hash)
  AND NOT EXISTS (SELECT 1 FROM version_asset a WHERE a.hash = blob.hash) AND NOT EXISTS (SELECT 1 FROM source WHERE lead_hash = blob.hash)
  AND NOT EXISTS (SELECT 1 FROM draft WHERE snapshot_hash = blob.hash OR file_hash = blob.hash) AND NOT EXISTS (SELECT 1 FROM draft_asset d WHERE d.hash = blob.hash)
  AND NOT EXISTS (SELECT 1 FROM job WHERE upload_hash = blob.hash) AND NOT EXISTS (SELECT 1 FROM job WHERE transcript_hash = blob.hash) AND NOT EXISTS (SELECT 1 FROM picture p WHERE p.hash = blob.hash)`;
const UNUSED_OF = `SELECT hash FROM blob WHERE hash IN (SELECT value FROM json_each(?)) AND ${UNUSED}`;
const ALL_UNUSED = `SELECT hash FROM blob WHERE ${UNUSED}`;
const REMOVE_BLOB = 'DELETE FROM blob WHERE hash = ?';

/** Removes those of some blobs that nothing refers to any more. Call within a transaction. */
export function removeUnused(db: Db, hashes: readonly string[]): void {
  for (const { hash } of db.all<{ hash: string }>(UNUSED_OF, JSON.stringify(hashes))) db.run(REMOVE_BLOB, hash);
}

const LEFT_CHUNKS =
  'DELETE FROM blob_chunk WHERE hash IN (SELECT DISTINCT c.hash FROM blob_chunk c WHERE NOT EXISTS (SELECT 1 FROM blob b WHERE b.hash = c.hash))';
/** Removes parts of files whose storing never came to its end. Call while nothing is being stored. */
export const removeLeftChunks = (db: Db): number => db.run(LEFT_CHUNKS);

/** Removes blobs that nothing refers to and nothing did when this was last asked. Gives those that nothing refers to now. */
export function removeOrphans(db: Db, seenBefore: ReadonlySet<string>): ReadonlySet<string> {
  const left = new Set<string>();
  for (const { hash } of db.all<{ hash: string }>(ALL_UNUSED)) {
    if (seenBefore.has(hash)) db.run(REMOVE_BLOB, hash);
    else left.add(hash);
  }
  return left;
}

/**
 * Does work that deletes what must be gone for good: freed pages are overwritten (SQLite leaves them as they were
 * otherwise), and the log that still holds them is emptied.
 */
export function forGood<T>(db: Db, work: () => T): T {
  db.raw.pragma('secure_delete = ON');
  try {
    return db.transaction(work);
  } finally {
    db.raw.pragma('secure_delete = FAST');
    db.raw.pragma('wal_checkpoint(TRUNCATE)');
  }
}
