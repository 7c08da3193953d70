import type { Amount, ClassLabel, Excerpt, KeptBefore, ReadingState, SourceDetail, SourceFacts, SourceKind, SourceRow, StrandMark } from '@avrelle/core/wire';
import { covered, type Spans } from '@avrelle/core/reading';
import type { Db } from '../db/database';
import { KIND_COLUMNS, KIND_JOIN, kindFrom, type KindRow } from '../key/queries';

export interface SourceFilter {
  readonly state?: ReadingState | undefined;
  readonly tag?: string | undefined;
  readonly words?: string | undefined;
  readonly classId?: string | undefined;
  readonly id?: string | undefined;
}

interface Row {
  id: string; owner_id: string; owner_name: string; kind: SourceKind; title: string; author: string; site: string; address: string | null; description: string; language: string;
  published_at: string | null; kept_at: string; current_version: string; number: number; version_kept_at: string; minutes: number; length: number; version: number;
  state: ReadingState | null; position: number | null; spans: string | null;
  amount: Amount; doi: string; remark: string; lead_hash: string | null; width: number | null; facts: string; media_type: string | null; size: number | null;
}

const COLUMNS = `s.id, s.owner_id, p.name AS owner_name, s.kind, s.title, s.author, s.site, s.address, s.description, s.language, s.published_at, s.kept_at, s.current_version, v.number, v.kept_at AS version_kept_at,
  s.minutes, s.length, s.version, h.state, h.position, h.spans, s.amount, s.doi, CASE WHEN s.owner_id = @me THEN s.remark ELSE '' END AS remark, s.lead_hash, v.width, v.facts, b.media_type, b.size`;
const BEARS_TAG = `(EXISTS (SELECT 1 FROM source_tag t WHERE t.person_id = @me AND t.source_id = s.id AND t.tag = @tag)
  OR EXISTS (SELECT 1 FROM annotation a JOIN annotation_tag t ON t.annotation_id = a.id WHERE a.source_id = s.id AND a.author_id = @me AND a.deleted_at IS NULL AND t.tag = @tag))`;
export const SOURCES = `
  SELECT ${COLUMNS}
  FROM source s
  JOIN person p ON p.id = s.owner_id
  JOIN source_version v ON v.id = s.current_version
  LEFT JOIN blob b ON b.hash = v.file_hash
  LEFT JOIN shelf h ON h.person_id = @me AND h.source_id = s.id
  WHERE s.id IN (SELECT source_id FROM source_visible WHERE person_id = @me)
    AND (@id IS NULL OR s.id = @id)
    AND (@state IS NULL OR coalesce(h.state, 'to_read') = @state)
    AND (@tag IS NULL OR ${BEARS_TAG})
    AND (@class IS NULL OR EXISTS (SELECT 1 FROM class_source cs WHERE cs.class_id = @class AND cs.source_id = s.id))
    AND (@words IS NULL OR s.title || ' ' || s.author || ' ' || s.site || ' ' || s.description LIKE @words ESCAPE '\\')
  ORDER BY coalesce(h.touched_at, s.kept_at) DESC, s.id DESC`;
export const MARKS = `
  SELECT a.source_id, a.start, ${KIND_COLUMNS}, a.author_id = @me AS mine FROM annotation a ${KIND_JOIN}
  WHERE a.source_id = @source AND a.root_id IS NULL AND EXISTS (SELECT 1 FROM annotation_visible v WHERE v.person_id = @me AND v.annotation_id = a.id)
  ORDER BY a.start`;
export const TAGS_OF = `
  SELECT tag, 0 AS rank FROM source_tag WHERE person_id = @me AND source_id = @source
  UNION
  SELECT t.tag, 1 FROM annotation a JOIN annotation_tag t ON t.annotation_id = a.id
   WHERE a.source_id = @source AND a.author_id = @me AND a.deleted_at IS NULL AND t.tag NOT IN (SELECT tag FROM source_tag WHERE person_id = @me AND source_id = @source)
  ORDER BY rank, tag`;
const EXCERPTS = `
  SELECT a.id, ${KIND_COLUMNS}, a.quote, a.note FROM annotation a ${KIND_JOIN} WHERE a.source_id = @source AND a.author_id = @me AND a.root_id IS NULL AND a.deleted_at IS NULL AND a.note <> ''
  ORDER BY a.created_at DESC LIMIT 2`;
const CLASSES_WITH = `
  SELECT c.id, c.name, c.tint FROM class_source cs JOIN class c ON c.id = cs.class_id JOIN membership m ON m.class_id = c.id AND m.person_id = @me
  WHERE cs.source_id = @source ORDER BY c.name`;
const VISIBLE = 'SELECT 1 AS one FROM source_visible WHERE person_id = ? AND source_id = ?';
const OWNER = 'SELECT p.id, p.name FROM source s JOIN person p ON p.id = s.owner_id WHERE s.id = ? AND s.deleted_at IS NULL';
const TEXT_OF = 'SELECT t.stream, t.outline FROM version_text t WHERE t.version_id = ?';
const VERSION_SOURCE = 'SELECT v.source_id, v.snapshot_hash, v.kept_at, v.address, s.title FROM source_version v JOIN source s ON s.id = v.source_id WHERE v.id = ?';
const BY_CANONICAL = 'SELECT id FROM source WHERE owner_id = ? AND canonical = ? AND deleted_at IS NULL';
const BY_FINGERPRINT = "SELECT s.id FROM source_version v JOIN source s ON s.id = v.source_id WHERE v.fingerprint = ? AND v.fingerprint <> '' AND s.owner_id = ? AND s.deleted_at IS NULL LIMIT 1";
const BEFORE = 'SELECT s.title, s.kept_at, (SELECT count(*) FROM annotation a WHERE a.source_id = s.id AND a.author_id = s.owner_id AND a.root_id IS NULL AND a.deleted_at IS NULL) AS mine FROM source s WHERE s.id = ?';
const PATCH = 'UPDATE source SET title = @title, author = @author, site = @site, doi = @doi, language = @language, description = @description, published_at = @publishedAt, remark = @remark, version = version + 1 WHERE id = @id AND version = @version';
const RETITLE = 'UPDATE version_text SET title = ? WHERE version_id IN (SELECT id FROM source_version WHERE source_id = ?)';
const SET_DELETED = 'UPDATE source SET deleted_at = ? WHERE id = ?';
const DELETED_OF = 'SELECT 1 AS one FROM source WHERE id = ? AND owner_id = ? AND deleted_at IS NOT NULL';
const CLEAR_TAGS = 'DELETE FROM source_tag WHERE person_id = ? AND source_id = ?';
const ADD_TAG = 'INSERT INTO source_tag (person_id, source_id, tag) VALUES (?, ?, ?) ON CONFLICT DO NOTHING';
const SHELVE = `
  INSERT INTO shelf (person_id, source_id, state, position, spans, touched_at) VALUES (@me, @source, coalesce(@state, 'reading'), coalesce(@position, 0), coalesce(@spans, '[]'), @now)
  ON CONFLICT (person_id, source_id) DO UPDATE SET state = coalesce(@state, state), position = coalesce(@position, position), spans = coalesce(@spans, spans), touched_at = @now`;
export const TAG_COUNTS = `
  SELECT tag, count(*) AS count FROM (
    SELECT t.tag, t.source_id FROM source_tag t WHERE t.person_id = @me AND t.source_id IN (SELECT source_id FROM source_visible WHERE person_id = @me)
    UNION
    SELECT t.tag, a.source_id FROM annotation a JOIN annotation_tag t ON t.annotation_id = a.id WHERE a.author_id = @me AND a.deleted_at IS NULL AND a.source_id IN (SELECT source_id FROM source_visible WHERE person_id = @me))
  GROUP BY tag ORDER BY count DESC, tag`;
export const STATE_COUNTS = `
  SELECT coalesce(h.state, 'to_read') AS state, count(DISTINCT v.source_id) AS count FROM source_visible v LEFT JOIN shelf h ON h.person_id = @me AND h.source_id = v.source_id
  WHERE v.person_id = @me GROUP BY 1`;

const OLDER = 'SELECT v.number, v.kept_at, v.width, v.facts, b.media_type, b.size, length(t.stream) AS length FROM source_version v JOIN version_text t ON t.version_id = v.id LEFT JOIN blob b ON b.hash = v.file_hash WHERE v.id = ?';

const named = (db: Db) => ({ all: <T>(sql: string, values: object) => db.all<T>(sql, values as never) });

/** The sources a person may read, last touched first, each with what it is to that person. */
export function sourceRows(db: Db, me: string, filter: SourceFilter): SourceRow[] {
  return found(db, me, filter).map((row) => withReader(db, me, row));
}

/** With `version`, as that older version has it. */
export function sourceDetail(db: Db, me: string, id: string, version: string | null = null): SourceDetail | undefined {
  const [row] = found(db, me, { id });
  if (!row) return undefined;
  const older = version === null ? undefined : db.get<Pick<Row, 'number' | 'kept_at' | 'length' | 'width' | 'facts' | 'media_type' | 'size'>>(OLDER, version);
  const shown = older ?? { ...row, kept_at: row.version_kept_at }, spans = JSON.parse(row.spans ?? '[]') as Spans;
  return {
    ...withReader(db, me, row), versionId: version ?? row.current_version, versionNumber: shown.number, versionKeptAt: shown.kept_at, newest: row.number, length: shown.length, position: row.position ?? 0, spans,
    width: shown.width, facts: JSON.parse(shown.facts) as SourceFacts, file: shown.media_type === null ? null : { mediaType: shown.media_type, size: shown.size ?? 0 },
  };
}

function found(db: Db, me: string, filter: SourceFilter): Row[] {
  const words = filter.words?.trim();
  return named(db).all<Row>(SOURCES, {
    me, id: filter.id ?? null, state: filter.state ?? null, tag: filter.tag ?? null, class: filter.classId ?? null,
    words: words ? `%${words.replace(/[\\%_]/g, '\\$&')}%` : null,
  });
}

function withReader(db: Db, me: string, row: Row): SourceRow {
  const marks = named(db).all<KindRow & { start: number; mine: number }>(MARKS, { me, source: row.id });
  const spans = JSON.parse(row.spans ?? '[]') as Spans;
  const share = (at: number): number => Math.round((at / Math.max(1, row.length)) * 10_000) / 10_000;
  return {
    id: row.id, title: row.title, author: row.author, site: row.site, address: row.address, kind: row.kind, language: row.language, description: row.description,
    publishedAt: row.published_at, keptAt: row.kept_at, amount: row.amount, doi: row.doi, remark: row.remark, lead: row.lead_hash, minutes: row.minutes, state: row.state ?? 'to_read', readShare: Math.min(1, share(covered(spans))),
    tags: named(db).all<{ tag: string }>(TAGS_OF, { me, source: row.id }).map((t) => t.tag),
    marks: marks.length, mine: marks.filter((m) => m.mine).length,
    strand: { marks: marks.map((m): StrandMark => [share(m.start), kindFrom(m).pigment]), read: spans.map(([s, e]) => [share(s), share(e)] as const) },
    excerpts: named(db).all<KindRow & Omit<Excerpt, 'kind'>>(EXCERPTS, { me, source: row.id }).map((x) => ({ id: x.id, kind: kindFrom(x), quote: x.quote, note: x.note })),
    classes: named(db).all<ClassLabel>(CLASSES_WITH, { me, source: row.id }), owned: row.owner_id === me, ownerName: row.owner_name, version: row.version,
  };
}

export const canRead = (db: Db, personId: string, sourceId: string): boolean => db.get(VISIBLE, personId, sourceId) !== undefined;
export const ownerOf = (db: Db, sourceId: string) => db.get<{ id: string; name: string }>(OWNER, sourceId);
export const versionText = (db: Db, versionId: string) => db.get<{ stream: string; outline: string }>(TEXT_OF, versionId);
export const versionOf = (db: Db, versionId: string) => db.get<{ source_id: string; snapshot_hash: string; kept_at: string; address: string | null; title: string }>(VERSION_SOURCE, versionId);
/** By its address, else by its content. */
export function keptBefore(db: Db, ownerId: string, { canonical, fingerprint }: { readonly canonical: string | null; readonly fingerprint: string }): string | undefined {
  const byAddress = canonical === null ? undefined : db.get<{ id: string }>(BY_CANONICAL, ownerId, canonical);
  return (byAddress ?? (fingerprint ? db.get<{ id: string }>(BY_FINGERPRINT, fingerprint, ownerId) : undefined))?.id;
}
export function describeBefore(db: Db, sourceId: string): KeptBefore | null {
  const row = db.get<{ title: string; kept_at: string; mine: number }>(BEFORE, sourceId);
  return row ? { sourceId, title: row.title, keptAt: row.kept_at, mine: row.mine } : null;
}
export const setDeleted = (db: Db, id: string, at: string | null): number => db.run(SET_DELETED, at, id);
/** True for a source this person owned and deleted. */
export const wasOwned = (db: Db, personId: string, sourceId: string): boolean => db.get(DELETED_OF, sourceId, personId) !== undefined;
export const tagCounts = (db: Db, me: string) => named(db).all<{ tag: string; count: number }>(TAG_COUNTS, { me });
export const stateCounts = (db: Db, me: string) => named(db).all<{ state: ReadingState; count: number }>(STATE_COUNTS, { me });

/** False when the row is at another version by now. */
export function patchSource(db: Db, id: string, version: number, to: Pick<SourceRow, 'title' | 'author' | 'site' | 'doi' | 'language' | 'description' | 'publishedAt' | 'remark'>): boolean {
  const { title, author, site, doi, language, description, publishedAt, remark } = to;
  if (db.run(PATCH, { title, author, site, doi, language, description, publishedAt, remark, id, version } as never) === 0) return false;
  db.run(RETITLE, to.title, id);
  return true;
}

export function replaceTags(db: Db, personId: string, sourceId: string, tags: readonly string[]): void {
  db.run(CLEAR_TAGS, personId, sourceId);
  for (const tag of tags) db.run(ADD_TAG, personId, sourceId, tag);
}

export function shelve(db: Db, me: string, source: string, to: { state?: ReadingState | undefined; position?: number | undefined; spans?: Spans | undefined }, now: string): void {
  db.run(SHELVE, { me, source, now, state: to.state ?? null, position: to.position ?? null, spans: to.spans ? JSON.stringify(to.spans) : null } as never);
}
