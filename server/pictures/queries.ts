import type { SourceId } from '@avrelle/core/wire';
import type { Anchor } from '@avrelle/core/anchor';
import type { Db } from '../db/database';

const VERSIONS =
  'SELECT id, number, address, snapshot_hash, file_hash, width, facts FROM source_version WHERE source_id = ? ORDER BY number';
const ASSETS = 'SELECT a.hash FROM version_asset a JOIN source_version v ON v.id = a.version_id WHERE v.source_id = ?';
const COPY_TEXT =
  'INSERT INTO version_text (version_id, title, stream, outline, about, remark) SELECT ?, title, stream, outline, about, remark FROM version_text WHERE version_id = ?';
const INSERT_VERSION =
  'INSERT INTO source_version (id, source_id, number, kept_at, address, snapshot_hash, file_hash, width, fingerprint, facts) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)';
const INSERT_ASSET = 'INSERT INTO version_asset (version_id, hash) VALUES (?, ?)';
const SET_CURRENT = 'UPDATE source SET current_version = ?, lead_hash = ? WHERE id = ?';
const COPY_PLACES =
  'INSERT INTO placement SELECT annotation_id, ?, state, start, stop, confidence, candidates, hand_start, hand_stop FROM placement WHERE version_id = ?';
const MOVE_MARKS = 'UPDATE annotation SET version_id = ? WHERE source_id = ?';
const ANCHORS = 'SELECT id, anchor FROM annotation WHERE source_id = ? AND anchor IS NOT NULL';
const SET_ANCHOR = 'UPDATE annotation SET anchor = ?, version = version + 1 WHERE id = ?';
const REMOVE_VERSIONS = 'DELETE FROM source_version WHERE source_id = ? AND id <> ?';
const FORGET_UPLOAD = 'UPDATE job SET upload_hash = NULL WHERE source_id = ?';

export interface PictureVersion {
  readonly id: string;
  readonly number: number;
  readonly address: string | null;
  readonly snapshotHash: string;
  readonly fileHash: string | null;
  readonly width: number | null;
  readonly facts: string;
}

export const versionsWithFiles = (db: Db, sourceId: SourceId) => db.all<PictureVersion>(VERSIONS, sourceId);
export const assetsOf = (db: Db, sourceId: SourceId): string[] =>
  db.all<{ hash: string }>(ASSETS, sourceId).map((a) => a.hash);
export const anchorsOf = (db: Db, sourceId: SourceId) =>
  db
    .all<{ id: string; anchor: string }>(ANCHORS, sourceId)
    .map(({ id, anchor }) => ({ id, anchor: JSON.parse(anchor) as Anchor }));
export const setAnchor = (db: Db, id: string, anchor: Anchor): void =>
  void db.run(SET_ANCHOR, JSON.stringify(anchor), id);

/** Puts a version with another picture in the place of all others; annotations and their places go over to it. */
export function putInPlaceOf(
  db: Db,
  sourceId: SourceId,
  before: PictureVersion,
  to: {
    readonly id: string;
    readonly at: string;
    readonly snapshot: string;
    readonly picture: string;
    readonly fingerprint: string;
  },
): void {
  db.run(
    INSERT_VERSION,
    to.id,
    sourceId,
    before.number + 1,
    to.at,
    before.address,
    to.snapshot,
    to.picture,
    before.width,
    to.fingerprint,
    before.facts,
  );
  db.run(INSERT_ASSET, to.id, to.picture);
  db.run(COPY_TEXT, to.id, before.id);
  db.run(COPY_PLACES, to.id, before.id);
  db.run(MOVE_MARKS, to.id, sourceId);
  db.run(SET_CURRENT, to.id, to.picture, sourceId);
  db.run(FORGET_UPLOAD, sourceId);
  db.run(REMOVE_VERSIONS, sourceId, to.id);
}
