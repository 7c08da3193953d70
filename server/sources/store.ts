import type { Context } from '../context';
import type { Db } from '../db/database';
import { storeBlob } from '../db/blobs';
import type { Ingested } from '../ingest/ingest';
import { keptBefore, replaceTags, shelve } from './queries';

const INSERT_SOURCE = `INSERT INTO source (id, owner_id, kind, title, author, site, address, canonical, description, language, published_at, kept_at, current_version, minutes, length)
  VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`;
const INSERT_VERSION = 'INSERT INTO source_version (id, source_id, number, kept_at, address, snapshot_hash) VALUES (?, ?, 1, ?, ?, ?)';
const INSERT_ASSET = 'INSERT INTO version_asset (version_id, hash) VALUES (?, ?)';
const INSERT_TEXT = 'INSERT INTO version_text (version_id, title, stream, outline) VALUES (?, ?, ?, ?)';

export interface ToStore {
  readonly id: string;
  readonly ownerId: string;
  readonly tags: readonly string[];
  readonly ingested: Ingested;
}

/** Stores a source with its first version, whole or not at all; a page the owner kept before is given back instead. */
export function storeSource({ db, now, newId, events }: Pick<Context, 'db' | 'now' | 'newId' | 'events'>, { id, ownerId, tags, ingested }: ToStore): { readonly sourceId: string; readonly already: boolean } {
  return db.transaction(() => {
    const before = ingested.canonical ? keptBefore(db, ownerId, ingested.canonical) : undefined;
    if (before) return { sourceId: before, already: true };
    const versionId = newId(), at = now(), { meta } = ingested;
    db.run(INSERT_SOURCE, id, ownerId, ingested.kind, meta.title, meta.author, meta.site, ingested.address, ingested.canonical, meta.description, meta.language, meta.publishedAt, at, versionId, ingested.minutes, ingested.text.length);
    insertVersion(db, versionId, id, at, ingested);
    replaceTags(db, ownerId, id, tags);
    shelve(db, ownerId, id, { state: 'to_read' }, at);
    events.append({ type: 'library', personId: ownerId, sourceId: id });
    return { sourceId: id, already: false };
  });
}

function insertVersion(db: Db, versionId: string, sourceId: string, at: string, ingested: Ingested): void {
  const snapshot = storeBlob(db, Buffer.from(ingested.snapshot, 'utf8'), 'text/html');
  db.run(INSERT_VERSION, versionId, sourceId, at, ingested.address, snapshot);
  for (const asset of ingested.assets) db.run(INSERT_ASSET, versionId, storeBlob(db, asset.bytes, asset.mediaType));
  db.run(INSERT_TEXT, versionId, ingested.meta.title, ingested.text, JSON.stringify(ingested.outline));
}
