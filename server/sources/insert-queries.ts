import type { PersonId, SourceId, VersionId } from '@avrelle/core/wire';
import { insertInlines } from '../annotations/quotation-queries';
import { storeBlob } from '../db/blobs';
import type { Db } from '../db/database';
import type { Ingested, StoredFiles } from '../ingest/ingested';

const INSERT_SOURCE = `INSERT INTO source (id, owner_id, kind, amount, title, author, site, address, canonical, description, language, published_at, doi, lead_hash, remark, kept_at, current_version, minutes, length)
  VALUES (@id, @owner, @kind, @amount, @title, @author, @site, @address, @canonical, @description, @language, @published, @doi, @lead, @remark, @at, @version, @minutes, @length)`;
const INSERT_VERSION =
  'INSERT INTO source_version (id, source_id, number, kept_at, address, snapshot_hash, file_hash, width, fingerprint, facts) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)';
const INSERT_ASSET = 'INSERT INTO version_asset (version_id, hash) VALUES (?, ?)';
const INSERT_TEXT = `INSERT INTO version_text (version_id, title, stream, outline, about, remark)
  SELECT v.id, s.title, @stream, @outline, trim(s.author || ' ' || s.site || ' ' || s.description), s.remark FROM source_version v JOIN source s ON s.id = v.source_id WHERE v.id = @version`;

export interface NewSource {
  readonly id: string;
  readonly ownerId: PersonId;
  readonly versionId: VersionId;
  readonly at: string;
  readonly remark: string;
  /** False for one kept apart: it is not what its address is recognised by. */
  readonly recognised: boolean;
  readonly ingested: Ingested;
}

/** Call after its lead picture was stored. */
export function insertSource(db: Db, { id, ownerId, versionId, at, remark, recognised, ingested }: NewSource): void {
  const { meta, kind, amount, address, canonical, minutes, text, lead } = ingested;
  db.run(INSERT_SOURCE, {
    id,
    owner: ownerId,
    kind,
    amount,
    title: meta.title,
    author: meta.author,
    site: meta.site,
    address,
    canonical: recognised ? canonical : null,
    description: meta.description,
    language: meta.language,
    published: meta.publishedAt,
    doi: meta.doi,
    lead,
    remark,
    at,
    version: versionId,
    minutes,
    length: text.length,
  });
}

export interface NewVersion {
  readonly versionId: VersionId;
  readonly sourceId: SourceId;
  /** 1 for the first. */
  readonly number: number;
  readonly at: string;
  readonly ingested: Ingested;
}

/** Its files are stored before; see `storeFiles`. */
export function insertVersion(
  db: Db,
  { versionId, sourceId, number, at, ingested }: NewVersion,
  files: StoredFiles,
): void {
  db.run(
    INSERT_VERSION,
    versionId,
    sourceId,
    number,
    at,
    ingested.address,
    files.snapshot,
    files.file,
    ingested.width,
    ingested.fingerprint,
    JSON.stringify(ingested.facts),
  );
  for (const hash of files.assets) db.run(INSERT_ASSET, versionId, hash);
  db.run(INSERT_TEXT, {
    version: versionId,
    stream: ingested.text,
    outline: JSON.stringify(ingested.outline),
  });
  insertInlines(db, versionId, ingested.inlines);
}

/** Stores the bytes of a version; call inside the transaction that refers to them. */
export function storeFiles(
  db: Db,
  { snapshot, assets, file, stored }: Pick<Ingested, 'snapshot' | 'assets' | 'file' | 'stored'>,
): StoredFiles {
  const page = snapshot === '' && stored ? stored.snapshot : storeBlob(db, Buffer.from(snapshot, 'utf8'), 'text/html');
  if (stored) return { ...stored, snapshot: page };
  return {
    snapshot: page,
    assets: assets.map((asset) => storeBlob(db, asset.bytes, asset.mediaType)),
    file: file && storeBlob(db, file.bytes, file.mediaType),
  };
}
