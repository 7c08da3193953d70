import { storeBlob } from '../db/blobs';
import type { Db } from '../db/database';
import type { Ingested } from '../ingest/ingest';

const INSERT_SOURCE = `INSERT INTO source (id, owner_id, kind, title, author, site, address, canonical, description, language, published_at, kept_at, current_version, minutes, length)
  VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`;
const INSERT_VERSION = 'INSERT INTO source_version (id, source_id, number, kept_at, address, snapshot_hash) VALUES (?, ?, ?, ?, ?, ?)';
const INSERT_ASSET = 'INSERT INTO version_asset (version_id, hash) VALUES (?, ?)';
const INSERT_TEXT = 'INSERT INTO version_text (version_id, title, stream, outline) VALUES (?, ?, ?, ?)';

export function insertSource(db: Db, { id, ownerId, versionId, at, ingested }: { id: string; ownerId: string; versionId: string; at: string; ingested: Ingested }): void {
  const { meta, kind, address, canonical, minutes, text } = ingested;
  db.run(INSERT_SOURCE, id, ownerId, kind, meta.title, meta.author, meta.site, address, canonical, meta.description, meta.language, meta.publishedAt, at, versionId, minutes, text.length);
}

export interface NewVersion {
  readonly versionId: string;
  readonly sourceId: string;
  /** 1 for the first. */
  readonly number: number;
  readonly at: string;
  readonly title: string;
  readonly ingested: Ingested;
}

export function insertVersion(db: Db, { versionId, sourceId, number, at, title, ingested }: NewVersion): void {
  const snapshot = storeBlob(db, Buffer.from(ingested.snapshot, 'utf8'), 'text/html');
  db.run(INSERT_VERSION, versionId, sourceId, number, at, ingested.address, snapshot);
  for (const asset of ingested.assets) db.run(INSERT_ASSET, versionId, storeBlob(db, asset.bytes, asset.mediaType));
  db.run(INSERT_TEXT, versionId, title, ingested.text, JSON.stringify(ingested.outline));
}
