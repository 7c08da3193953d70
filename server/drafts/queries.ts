import type { PersonId } from '@avrelle/core/wire';
import { readBlob } from '../db/blobs';
import { removeUnused } from '../db/unused';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import type { Ingested } from '../ingest/ingested';
import { storeFiles } from '../sources/insert-queries';

const INSERT =
  'INSERT INTO draft (id, person_id, content, snapshot_hash, file_hash, created_at) VALUES (?, ?, ?, ?, ?, ?)';
const INSERT_ASSET = 'INSERT INTO draft_asset (draft_id, hash) VALUES (?, ?)';
const ONE = 'SELECT content, snapshot_hash, file_hash FROM draft WHERE id = ? AND person_id = ?';
const ASSETS = 'SELECT hash FROM draft_asset WHERE draft_id = ?';
const HAS_ASSET = 'SELECT 1 AS one FROM draft_asset WHERE draft_id = ? AND hash = ?';
const REMOVE = 'DELETE FROM draft WHERE id = ? AND person_id = ?';
const OLD = 'SELECT id, person_id FROM draft WHERE created_at < ?';

type Stored = Omit<Ingested, 'snapshot' | 'assets' | 'file' | 'stored'>;

/** Call within a transaction. */
export function storeDraft(
  db: Db,
  { id, personId, ingested, now }: { id: string; personId: PersonId; ingested: Ingested; now: string },
): void {
  const { snapshot, assets, file, stored, ...content } = ingested;
  const files = storeFiles(db, { snapshot, assets, file, stored });
  db.run(INSERT, id, personId, JSON.stringify(content satisfies Stored), files.snapshot, files.file, now);
  for (const hash of files.assets) db.run(INSERT_ASSET, id, hash);
}

interface Row {
  content: string;
  snapshotHash: string;
  fileHash: string | null;
}

function row(db: Db, personId: PersonId, id: string): Row {
  const found = db.get<Row>(ONE, id, personId);
  if (!found) throw new AppError('not_found', { what: 'page to look at' });
  return found;
}

export const draftContent = (db: Db, personId: PersonId, id: string): Stored =>
  JSON.parse(row(db, personId, id).content) as Stored;
export const draftSnapshot = (db: Db, personId: PersonId, id: string): Buffer =>
  readBlob(db, row(db, personId, id).snapshotHash)!.bytes;
export const draftHasAsset = (db: Db, id: string, hash: string): boolean => db.get(HAS_ASSET, id, hash) !== undefined;

/** Everything of it, as it was ingested; its files stay in the database. Throws `not_found`. */
export function loadDraft(db: Db, personId: PersonId, id: string): Ingested {
  const { content, snapshotHash, fileHash } = row(db, personId, id);
  const hashes = db.all<{ hash: string }>(ASSETS, id).map((a) => a.hash);
  const none = new Uint8Array(0);
  const stored = JSON.parse(content) as Omit<Stored, 'inlines'> & Partial<Stored>;
  return {
    // Absent where it was fetched before links and emphasis were noted down.
    ...stored,
    inlines: stored.inlines ?? [],
    snapshot: '',
    assets: hashes.map((hash) => ({ hash, mediaType: '', bytes: none })),
    file: fileHash === null ? null : { bytes: none, mediaType: '' },
    stored: { snapshot: snapshotHash, assets: hashes, file: fileHash },
  };
}

/** Removes a draft with what only it referred to. */
export function removeDraft(db: Db, personId: PersonId, id: string): void {
  db.transaction(() => {
    const found = db.get<Row>(ONE, id, personId);
    if (!found) return;
    const hashes = [
      found.snapshotHash,
      ...(found.fileHash ? [found.fileHash] : []),
      ...db.all<{ hash: string }>(ASSETS, id).map((a) => a.hash),
    ];
    db.run(REMOVE, id, personId);
    removeUnused(db, hashes);
  });
}

/** Drafts made before a time that nobody kept. */
export function removeOldDrafts(db: Db, before: string): void {
  for (const { id, personId } of db.all<{ id: string; personId: PersonId }>(OLD, before)) removeDraft(db, personId, id);
}
