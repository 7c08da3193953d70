import type { Anchor, Located } from '@avrelle/core/anchor';
import { shareRead, type Spans } from '@avrelle/core/reading';
import type { VersionRow, AnnotationId, PersonId, SourceId, VersionId } from '@avrelle/core/wire';
import { placeOf, type PlaceRow } from '../annotations/place';
import type { Db } from '../db/database';
import type { Marked, Read } from './follow';

const VERSIONS =
  'SELECT v.id, v.number, v.kept_at, length(t.stream) AS length FROM source_version v JOIN version_text t ON t.version_id = v.id WHERE v.source_id = ? ORDER BY v.number DESC LIMIT 500';
const NEWEST =
  'SELECT v.id, v.number, v.kept_at, v.snapshot_hash, t.stream, s.title, s.address, s.owner_id FROM source s JOIN source_version v ON v.id = s.current_version JOIN version_text t ON t.version_id = v.id WHERE s.id = ? AND s.deleted_at IS NULL';
export const MARKED = `
  SELECT a.id, a.anchor, a.version_id, v.id AS viewed, pl.state, pl.start, pl.stop, pl.confidence, pl.candidates, pl.hand_start, pl.hand_stop
  FROM annotation a JOIN source_version v ON v.id = @version LEFT JOIN placement pl ON pl.annotation_id = a.id AND pl.version_id = v.id
  WHERE a.source_id = v.source_id AND a.anchor IS NOT NULL ORDER BY a.start`;
const READS = 'SELECT person_id, spans, position FROM shelf WHERE source_id = ?';
const SET_READ = 'UPDATE shelf SET spans = ?, position = ?, read_share = ? WHERE person_id = ? AND source_id = ?';
const LENGTH = 'SELECT length FROM source WHERE id = ?';
const SET_CURRENT = 'UPDATE source SET current_version = ?, minutes = ?, length = ? WHERE id = ?';
const PLACE = `
  INSERT INTO placement (annotation_id, version_id, state, start, stop, confidence, candidates) VALUES (?, ?, ?, ?, ?, ?, ?)
  ON CONFLICT (annotation_id, version_id) DO NOTHING`;
const BY_HAND = `
  INSERT INTO placement (annotation_id, version_id, state, start, stop, confidence, candidates, hand_start, hand_stop) VALUES (@id, @version, 'exact', @own_start, @own_stop, 1, '[]', @start, @stop)
  ON CONFLICT (annotation_id, version_id) DO UPDATE SET hand_start = @start, hand_stop = @stop`;
const SET_START = 'UPDATE annotation SET start = ? WHERE id = ?';

export const versionsOf = (db: Db, sourceId: SourceId): VersionRow[] =>
  db
    .all<{ id: string; number: number; keptAt: string; length: number }>(VERSIONS, sourceId)
    .map((v) => ({ id: v.id, number: v.number, keptAt: v.keptAt, length: v.length }));

const CURRENT = 'SELECT current_version FROM source WHERE id = ?';
export const newestId = (db: Db, sourceId: SourceId): string | undefined =>
  db.get<{ currentVersion: VersionId }>(CURRENT, sourceId)?.currentVersion;

export interface Newest {
  readonly id: string;
  readonly number: number;
  readonly keptAt: string;
  readonly snapshotHash: string;
  readonly stream: string;
  readonly title: string;
  readonly address: string | null;
  readonly ownerId: PersonId;
}
export const newestVersion = (db: Db, sourceId: SourceId): Newest | undefined => db.get<Newest>(NEWEST, sourceId);

const NUMBERED = 'SELECT id FROM source_version WHERE source_id = ? AND number = ?';
export const versionNumbered = (db: Db, sourceId: SourceId, number: number): string | undefined =>
  db.get<{ id: string }>(NUMBERED, sourceId, number)?.id;

interface MarkedRow extends PlaceRow {
  id: string;
  anchor: string;
  versionId: VersionId;
  viewed: string;
}

/** Everybody's annotations as they stand in a version, deleted ones too: deleting can be undone. */
export function marksIn(db: Db, versionId: VersionId): Marked[] {
  return db.all<MarkedRow>(MARKED, { version: versionId }).map((row): Marked => {
    const anchor = JSON.parse(row.anchor) as Anchor;
    const place = placeOf(row, anchor, row.versionId, row.viewed);
    return {
      id: row.id,
      anchor,
      range: place && place.start !== null && place.end !== null ? { start: place.start, end: place.end } : null,
    };
  });
}

export const readsOf = (db: Db, sourceId: SourceId): Read[] =>
  db
    .all<{ personId: PersonId; spans: string; position: number }>(READS, sourceId)
    .map((r) => ({ personId: r.personId, spans: JSON.parse(r.spans) as Spans, position: r.position }));
export const setRead = (db: Db, sourceId: SourceId, { personId, spans, position }: Read): number =>
  db.run(
    SET_READ,
    JSON.stringify(spans),
    position,
    shareRead(spans, db.get<{ length: number }>(LENGTH, sourceId)!.length),
    personId,
    sourceId,
  );
export const setCurrent = (
  db: Db,
  sourceId: SourceId,
  versionId: VersionId,
  to: { minutes: number; length: number },
): number => db.run(SET_CURRENT, versionId, to.minutes, to.length, sourceId);

/** Stores where an annotation was found in the newest version, and lists it there. */
export function place(db: Db, annotationId: AnnotationId, versionId: VersionId, found: Located): void {
  const [start, stop] = found.state === 'lost' ? [null, null] : [found.start, found.end];
  db.run(PLACE, annotationId, versionId, found.state, start, stop, found.confidence, JSON.stringify(found.candidates));
  if (start !== null) db.run(SET_START, start, annotationId);
}

/** Stores where its author says it belongs. `own` is its range in the version it was made on, if that is this one. */
export function placeByHand(
  db: Db,
  { annotationId, versionId }: { readonly annotationId: AnnotationId; readonly versionId: VersionId },
  to: { start: number; end: number } | null,
  own: { start: number; end: number },
): void {
  db.run(BY_HAND, {
    id: annotationId,
    version: versionId,
    start: to?.start ?? null,
    stop: to?.end ?? null,
    own_start: own.start,
    own_stop: own.end,
  });
}
export const setStart = (db: Db, annotationId: AnnotationId, start: number): number =>
  db.run(SET_START, start, annotationId);

const NEWEST_FILE =
  'SELECT v.file_hash AS hash, s.title, b.media_type AS mediaType FROM source s JOIN source_version v ON v.id = s.current_version JOIN blob b ON b.hash = v.file_hash WHERE s.id = ? AND s.deleted_at IS NULL AND v.file_hash IS NOT NULL';
/** The file the newest version was made of. */
export const newestFile = (db: Db, sourceId: SourceId) =>
  db.get<{ hash: string; title: string; mediaType: string }>(NEWEST_FILE, sourceId);
