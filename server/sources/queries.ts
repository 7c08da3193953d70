import type {
  Amount,
  ClassLabel,
  Excerpt,
  KeptBefore,
  ReadingState,
  SourceDetail,
  SourceFacts,
  SourceKind,
  SourceRow,
  Strand,
  StrandMark,
  PersonId,
  SourceId,
  VersionId,
} from '@avrelle/core/wire';
import { plainWords } from '@avrelle/core/markdown';
import { markQuote } from '@avrelle/core/query';
import { addSpan, shareRead, type Spans } from '@avrelle/core/reading';
import { inlinesOf, readInlines } from '../annotations/quotation-queries';
import { reach, seesByReach } from '../access/visible-queries';
import type { Db } from '../db/database';
import { KIND_COLUMNS, KIND_JOIN, kindFrom, type KindRow } from '../legend/queries';

interface Row {
  id: string;
  ownerId: PersonId;
  ownerName: string;
  kind: SourceKind;
  title: string;
  author: string;
  site: string;
  address: string | null;
  description: string;
  language: string;
  publishedAt: string | null;
  keptAt: string;
  currentVersion: VersionId;
  number: number;
  versionKeptAt: string;
  minutes: number;
  length: number;
  version: number;
  state: ReadingState | null;
  position: number | null;
  spans: string | null;
  heard: string | null;
  amount: Amount;
  doi: string;
  remark: string;
  leadHash: string | null;
  width: number | null;
  facts: string;
  mediaType: string | null;
  size: number | null;
}

const COLUMNS = `s.id, s.owner_id, p.name AS owner_name, s.kind, s.title, s.author, s.site, s.address, s.description, s.language, s.published_at, s.kept_at, s.current_version, v.number, v.kept_at AS version_kept_at,
  s.minutes, s.length, s.version, h.state, h.position, h.spans, h.heard,
  s.amount, s.doi, CASE WHEN s.owner_id = @me THEN s.remark ELSE '' END AS remark, s.lead_hash, v.width, v.facts, b.media_type, b.size`;
/** The rows named by `@ids`, in that order, of those that `@me` may read. */
export const SOURCES = `
  SELECT ${COLUMNS}
  FROM json_each(@ids) j
  JOIN source s ON s.id = j.value
  JOIN person p ON p.id = s.owner_id
  JOIN source_version v ON v.id = s.current_version
  LEFT JOIN blob b ON b.hash = v.file_hash
  LEFT JOIN shelf h ON h.person_id = @me AND h.source_id = s.id
  WHERE EXISTS (SELECT 1 FROM source_visible w WHERE w.person_id = @me AND w.source_id = s.id)
  ORDER BY j.key`;
/** What belongs to rows that are named is asked for row by row: a planner without figures would go over all that is the asker's. */
export const MARKS = `
  WITH reach AS MATERIALIZED (${reach('AND cs.source_id IN (SELECT value FROM json_each(@ids))')})
  SELECT a.source_id, a.start, ${KIND_COLUMNS}, a.author_id = @me AS mine FROM json_each(@ids) j JOIN annotation a ON a.source_id = j.value ${KIND_JOIN}
  WHERE a.root_id IS NULL AND ${seesByReach('a', 'reach')}
  ORDER BY a.start`;
export const TAGS_OF = `
  SELECT source_id, tag, min(rank) AS rank FROM (
    SELECT t.source_id, t.tag, 0 AS rank FROM json_each(@ids) j CROSS JOIN source_tag t ON t.person_id = @me AND t.source_id = j.value
    UNION ALL
    SELECT a.source_id, t.tag, 1 FROM json_each(@ids) j CROSS JOIN annotation a ON a.source_id = j.value AND a.author_id = @me AND a.deleted_at IS NULL JOIN annotation_tag t ON t.annotation_id = a.id)
  GROUP BY source_id, tag ORDER BY rank, tag`;
const EXCERPTS = `
  SELECT e.*, e.anchor ->> '$.position.start' AS "from", ${inlinesOf('e')} AS inlines FROM (
    SELECT a.source_id, a.id, a.version_id, a.anchor, ${KIND_COLUMNS}, a.quote, a.note, row_number() OVER (PARTITION BY a.source_id ORDER BY a.created_at DESC) AS nth FROM json_each(@ids) j CROSS JOIN annotation a ON a.source_id = j.value AND a.author_id = @me AND a.deleted_at IS NULL ${KIND_JOIN}
    WHERE a.root_id IS NULL AND a.note <> '') e
  WHERE nth <= 2`;
const CLASSES_WITH = `
  SELECT cs.source_id, c.id, c.name, c.tint FROM json_each(@ids) j CROSS JOIN class_source cs ON cs.source_id = j.value JOIN class c ON c.id = cs.class_id JOIN membership m ON m.class_id = c.id AND m.person_id = @me
  ORDER BY c.name`;
const TEXT_OF = 'SELECT t.stream, t.outline FROM version_text t WHERE t.version_id = ?';
const VERSION_SOURCE =
  'SELECT v.source_id, v.snapshot_hash, v.kept_at, v.address, s.title FROM source_version v JOIN source s ON s.id = v.source_id WHERE v.id = ?';
const BY_CANONICAL = 'SELECT id FROM source WHERE owner_id = ? AND canonical = ? AND deleted_at IS NULL';
const BY_FINGERPRINT =
  "SELECT s.id FROM source_version v JOIN source s ON s.id = v.source_id WHERE v.fingerprint = ? AND v.fingerprint <> '' AND s.owner_id = ? AND s.deleted_at IS NULL LIMIT 1";
const BEFORE =
  'SELECT s.title, s.kept_at, (SELECT count(*) FROM annotation a WHERE a.source_id = s.id AND a.author_id = s.owner_id AND a.root_id IS NULL AND a.deleted_at IS NULL) AS mine FROM source s WHERE s.id = ?';
const PATCH =
  'UPDATE source SET title = @title, author = @author, site = @site, doi = @doi, language = @language, description = @description, published_at = @publishedAt, remark = @remark, version = version + 1 WHERE id = @id AND version = @version';
const RETITLE =
  'UPDATE version_text SET title = @title, about = @about, remark = @remark WHERE version_id IN (SELECT id FROM source_version WHERE source_id = @id)';
const SET_DELETED = 'UPDATE source SET deleted_at = ? WHERE id = ?';
const KEEP_TAGS =
  'DELETE FROM source_tag WHERE person_id = ? AND source_id = ? AND tag NOT IN (SELECT value FROM json_each(?))';
const ADD_TAG =
  'INSERT INTO source_tag (person_id, source_id, tag, added_at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING';
const TAKE_TAG = 'DELETE FROM source_tag WHERE person_id = ? AND source_id = ? AND tag = ?';
const STATE = 'SELECT state FROM shelf WHERE person_id = ? AND source_id = ?';
const LENGTH = 'SELECT length FROM source WHERE id = ?';
const HEARD = 'SELECT heard FROM shelf WHERE person_id = ? AND source_id = ?';
/** What was played in another window, or before, stays heard. */
const heardBy = (db: Db, me: PersonId, source: SourceId, more: Spans): Spans => {
  const before = JSON.parse(db.get<{ heard: string }>(HEARD, me, source)?.heard ?? '[]') as Spans;
  return more.reduce((all, [from, to]) => addSpan(all, from, to), before);
};
const SHELVE = `
  INSERT INTO shelf (person_id, source_id, state, position, spans, read_share, heard, touched_at, opened_at)
  VALUES (@me, @source, coalesce(@state, 'reading'), coalesce(@position, 0), coalesce(@spans, '[]'),
    coalesce(@share, 0), coalesce(@heard, '[]'), @now, @opened)
  ON CONFLICT (person_id, source_id) DO UPDATE SET state = coalesce(@state, state),
    position = coalesce(@position, position), spans = coalesce(@spans, spans),
    read_share = coalesce(@share, read_share), heard = coalesce(@heard, heard), touched_at = @now,
    opened_at = coalesce(@opened, opened_at)`;
const OLDER =
  'SELECT v.number, v.kept_at, v.width, v.facts, b.media_type, b.size, length(t.stream) AS length FROM source_version v JOIN version_text t ON t.version_id = v.id LEFT JOIN blob b ON b.hash = v.file_hash WHERE v.id = ?';

/** Sources by their ids, in that order, each with what it is to that person; those they may not read are left out. */
export const sourceRowsOf = (db: Db, me: PersonId, ids: readonly string[]): SourceRow[] =>
  withReader(db, me, rowsOf(db, me, ids));

/** With `version`, as that older version has it. */
export function sourceDetail(
  db: Db,
  me: PersonId,
  id: string,
  version: string | null = null,
): SourceDetail | undefined {
  const [row] = rowsOf(db, me, [id]);
  if (!row) return undefined;
  const older =
    version === null
      ? undefined
      : db.get<Pick<Row, 'number' | 'keptAt' | 'length' | 'width' | 'facts' | 'mediaType' | 'size'>>(OLDER, version);
  const shown = older ?? { ...row, keptAt: row.versionKeptAt };
  const spans = JSON.parse(row.spans ?? '[]') as Spans;
  return {
    ...withReader(db, me, [row])[0]!,
    versionId: version ?? row.currentVersion,
    versionNumber: shown.number,
    versionKeptAt: shown.keptAt,
    newest: row.number,
    length: shown.length,
    position: row.position ?? 0,
    spans,
    heard: JSON.parse(row.heard ?? '[]') as Spans,
    width: shown.width,
    facts: JSON.parse(shown.facts) as SourceFacts,
    file: shown.mediaType === null ? null : { mediaType: shown.mediaType, size: shown.size ?? 0 },
  };
}

const rowsOf = (db: Db, me: PersonId, ids: readonly string[]): Row[] =>
  db.all<Row>(SOURCES, { me, ids: JSON.stringify(ids) });

/** What belongs to each of them is asked for all at once. */
function withReader(db: Db, me: PersonId, rows: readonly Row[]): SourceRow[] {
  if (rows.length === 0) return [];
  const asked = { me, ids: JSON.stringify(rows.map((r) => r.id)) };
  const of = <T extends { sourceId: SourceId }>(sql: string): ((id: string) => readonly T[]) =>
    bySource(db.all<T>(sql, asked));
  const marks = of<KindRow & { sourceId: SourceId; start: number; mine: number }>(MARKS);
  const tags = of<{ sourceId: SourceId; tag: string }>(TAGS_OF);
  const excerpts = of<ExcerptRow>(EXCERPTS);
  const classes = of<ClassLabel & { sourceId: SourceId }>(CLASSES_WITH);
  return rows.map((row) => ({
    id: row.id,
    title: row.title,
    author: row.author,
    site: row.site,
    address: row.address,
    kind: row.kind,
    language: row.language,
    description: row.description,
    publishedAt: row.publishedAt,
    keptAt: row.keptAt,
    amount: row.amount,
    doi: row.doi,
    remark: row.remark,
    lead: row.leadHash,
    minutes: row.minutes,
    state: row.state ?? 'to_read',
    readShare: shareRead(JSON.parse(row.spans ?? '[]') as Spans, row.length),
    tags: tags(row.id).map((t) => t.tag),
    marks: marks(row.id).length,
    mine: marks(row.id).filter((m) => m.mine).length,
    strand: strandOf(row, marks(row.id)),
    excerpts: excerpts(row.id).map(excerptOf),
    classes: classes(row.id).map(({ id, name, tint }) => ({ id, name, tint })),
    owned: row.ownerId === me,
    ownerName: row.ownerName,
    version: row.version,
  }));
}

interface ExcerptRow extends KindRow {
  sourceId: SourceId;
  id: string;
  quote: string;
  note: string;
  from: number | null;
  inlines: string | null;
}

const excerptOf = (row: ExcerptRow): Excerpt => ({
  id: row.id,
  kind: kindFrom(row),
  quote: markQuote(row.quote, [], row.from ?? 0, readInlines(row.inlines)),
  note: plainWords(row.note),
});

function bySource<T extends { sourceId: SourceId }>(rows: readonly T[]): (id: string) => readonly T[] {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(row.sourceId);
    if (group) group.push(row);
    else groups.set(row.sourceId, [row]);
  }
  return (id) => groups.get(id) ?? [];
}

function strandOf({ length, spans }: Row, marks: readonly (KindRow & { start: number })[]): Strand {
  const share = (at: number): number => Math.round((at / Math.max(1, length)) * 10_000) / 10_000;
  return {
    marks: marks.map((m): StrandMark => [share(m.start), kindFrom(m).pigment]),
    read: (JSON.parse(spans ?? '[]') as Spans).map(([s, e]) => [share(s), share(e)] as const),
  };
}

const READERS = 'SELECT DISTINCT person_id FROM source_visible WHERE source_id = ?';
/** Ids of all who may read a source. */
export const readersOf = (db: Db, sourceId: SourceId): string[] =>
  db.all<{ personId: PersonId }>(READERS, sourceId).map((r) => r.personId);
export const versionText = (db: Db, versionId: VersionId) =>
  db.get<{ stream: string; outline: string }>(TEXT_OF, versionId);
export const versionOf = (db: Db, versionId: VersionId) =>
  db.get<{ sourceId: SourceId; snapshotHash: string; keptAt: string; address: string | null; title: string }>(
    VERSION_SOURCE,
    versionId,
  );
/** By its address, else by its content. */
export function keptBefore(
  db: Db,
  ownerId: PersonId,
  { canonical, fingerprint }: { readonly canonical: string | null; readonly fingerprint: string },
): string | undefined {
  const byAddress = canonical === null ? undefined : db.get<{ id: string }>(BY_CANONICAL, ownerId, canonical);
  return (byAddress ?? (fingerprint ? db.get<{ id: string }>(BY_FINGERPRINT, fingerprint, ownerId) : undefined))?.id;
}
export function describeBefore(db: Db, sourceId: SourceId): KeptBefore | null {
  const row = db.get<{ title: string; keptAt: string; mine: number }>(BEFORE, sourceId);
  return row ? { sourceId, title: row.title, keptAt: row.keptAt, mine: row.mine } : null;
}
export const setDeleted = (db: Db, id: string, at: string | null): number => db.run(SET_DELETED, at, id);

/** False when the row is at another version by now. */
export function patchSource(
  db: Db,
  id: string,
  version: number,
  to: Pick<SourceRow, 'title' | 'author' | 'site' | 'doi' | 'language' | 'description' | 'publishedAt' | 'remark'>,
): boolean {
  const { title, author, site, doi, language, description, publishedAt, remark } = to;
  if (db.run(PATCH, { title, author, site, doi, language, description, publishedAt, remark, id, version }) === 0)
    return false;
  db.run(RETITLE, { title, about: [author, site, description].join(' ').trim(), remark, id });
  return true;
}

/** A source as one person has it: with their tags, their reading. */
interface OwnSource {
  readonly personId: PersonId;
  readonly sourceId: SourceId;
}

export function replaceTags(db: Db, own: OwnSource, tags: readonly string[], now: string): void {
  db.run(KEEP_TAGS, own.personId, own.sourceId, JSON.stringify(tags));
  addTags(db, own, tags, now);
}

/** Those that were not there before. */
export const addTags = (db: Db, { personId, sourceId }: OwnSource, tags: readonly string[], now: string): string[] =>
  tags.filter((tag) => db.run(ADD_TAG, personId, sourceId, tag, now) > 0);
/** Those that were there. */
export const takeTags = (db: Db, { personId, sourceId }: OwnSource, tags: readonly string[]): string[] =>
  tags.filter((tag) => db.run(TAKE_TAG, personId, sourceId, tag) > 0);
export const stateOf = (db: Db, personId: PersonId, sourceId: SourceId): ReadingState =>
  db.get<{ state: ReadingState }>(STATE, personId, sourceId)?.state ?? 'to_read';

interface Shelved {
  readonly state?: ReadingState | undefined;
  readonly position?: number | undefined;
  readonly spans?: Spans | undefined;
  readonly heard?: Spans | undefined;
}

export function shelve(db: Db, { personId: me, sourceId: source }: OwnSource, to: Shelved, now: string): void {
  const heard = to.heard && heardBy(db, me, source, to.heard);
  db.run(SHELVE, {
    me,
    source,
    now,
    state: to.state ?? null,
    position: to.position ?? null,
    opened: [to.position, to.spans, heard].every((one) => one === undefined) ? null : now,
    heard: heard ? JSON.stringify(heard) : null,
    spans: to.spans ? JSON.stringify(to.spans) : null,
    share: to.spans ? shareRead(to.spans, db.get<{ length: number }>(LENGTH, source)?.length ?? 0) : null,
  });
}
