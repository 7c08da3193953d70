import type { ForClass } from '@avrelle/core/audience';
import { markQuote } from '@avrelle/core/query';
import type {
  Annotation,
  AnnotationId,
  ClassId,
  LegendOwnerId,
  PersonId,
  SourceId,
  VersionId,
} from '@avrelle/core/wire';
import type { Anchor } from '@avrelle/core/anchor';
import { PLAIN_NOTE, type KindCode } from '@avrelle/core/legend';
import { linksIn } from '@avrelle/core/note';
import type { Db } from '../db/database';
import { audienceOf } from '../find/words';
import { KIND_COLUMNS, KIND_JOIN, kindFrom, type KindRow } from '../legend/queries';
import { setLinks } from '../notes/queries';
import { placeOf, type PlaceRow } from './place';
import { inlinesOf, readInlines } from './quotation-queries';
import { spread } from './together-queries';
import { classesShown, elsewhere, FOR_WHOM, sees } from '../access/visible-queries';

export interface AnnotationRow extends Omit<PlaceRow, 'start'>, KindRow {
  viewedVersion: VersionId;
  placeStart: number | null;
  id: string;
  sourceId: SourceId;
  versionId: VersionId;
  authorId: PersonId;
  authorName: string;
  kindOwner: LegendOwnerId;
  note: string;
  quote: string;
  anchor: string | null;
  start: number;
  rootId: AnnotationId | null;
  parentId: string | null;
  createdAt: string;
  updatedAt: string;
  version: number;
  deletedAt: string | null;
  tags: string;
  classes: string;
  teachersOnly: number;
  /** JSON of `InGroup`, `HeldIn` and `HiddenIn`. */
  groups: string;
  held: string;
  hidden: string;
  endorsed: string | null;
  /** Null: nowhere else; whether one may ask to join. */
  elsewhere: number | null;
  inlines: string | null;
}

/** Tags and, of the classes it is for, those the viewer shares with it; its author sees all of them. */
const COLUMNS = `a.id, a.source_id, a.version_id, a.author_id, p.name AS author_name, ${KIND_COLUMNS}, a.kind_owner, a.note, a.quote, a.anchor, a.start, a.root_id, a.parent_id, a.created_at, a.updated_at, a.version, a.deleted_at,
  coalesce(@version, s.current_version) AS viewed_version, pl.state, pl.start AS place_start, pl.stop, pl.confidence, pl.candidates, pl.hand_start, pl.hand_stop,
  (SELECT json_group_array(tag) FROM annotation_tag t WHERE t.annotation_id = a.id) AS tags,
${classesShown('a')} AS classes,
  CASE WHEN a.author_id <> @me THEN (${elsewhere('a.id', 'max(c.askable)')}) END AS elsewhere,
  ${FOR_WHOM}, ${inlinesOf('a')} AS inlines`;
/** The place asked for is that in version `@version`, or in the newest where that is null. */
const FROM = `FROM annotation a JOIN person p ON p.id = a.author_id JOIN source s ON s.id = a.source_id ${KIND_JOIN} LEFT JOIN placement pl ON pl.annotation_id = a.id AND pl.version_id = coalesce(@version, s.current_version)`;
/** What was deleted after it was answered is there, without its words, for whoever sees an answer. */
export const TRACE = `a.deleted_at IS NOT NULL AND EXISTS (
  SELECT 1 FROM annotation r JOIN annotation_visible v ON v.annotation_id = r.id AND v.person_id = @me
  WHERE r.root_id = a.id OR r.parent_id = a.id)`;
const THERE = `(${sees('a')} OR ${TRACE})`;
export const OF_SOURCE = `SELECT ${COLUMNS} ${FROM} WHERE a.source_id = @source AND ${THERE} ORDER BY a.start, a.created_at`;
export const ONE = `SELECT ${COLUMNS} ${FROM} WHERE a.id = @id AND ${THERE}`;
/** Several at once. */
export const SOME = `
  SELECT ${COLUMNS} ${FROM} WHERE a.id IN (SELECT value FROM json_each(@ids)) AND ${THERE}`;
const OWN = `SELECT ${COLUMNS} ${FROM} WHERE a.id = @id AND a.author_id = @me`;
const EXISTS = 'SELECT author_id FROM annotation WHERE id = ?';
export const INSERT_ANNOTATION = `INSERT INTO annotation (id, source_id, version_id, author_id, kind, kind_owner, note, quote, anchor, start, root_id, parent_id, created_at, updated_at, audience)
  VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`;
const UPDATE =
  'UPDATE annotation SET kind = ?, kind_owner = ?, note = ?, deleted_at = ?, updated_at = ?, version = version + 1 WHERE id = ? AND version = ?';
const SET_PASSAGE = 'UPDATE annotation SET version_id = ?, quote = ?, anchor = ?, start = ? WHERE id = ?';
const FORGET_PLACES = 'DELETE FROM placement WHERE annotation_id = ?';
const KEEP_TAGS = 'DELETE FROM annotation_tag WHERE annotation_id = ? AND tag NOT IN (SELECT value FROM json_each(?))';
const ADD_TAG = 'INSERT INTO annotation_tag (annotation_id, tag, added_at) VALUES (?, ?, ?) ON CONFLICT DO NOTHING';
const CLASSES_FOR = `
  SELECT class_id, teachers_only, held, group_id, release_at, release_id, hidden_reason, hidden_by, from_class
  FROM annotation_class WHERE annotation_id = ?`;
const CLEAR_CLASSES = 'DELETE FROM annotation_class WHERE annotation_id = ?';
const ADD_CLASS = `
  INSERT INTO annotation_class (annotation_id, class_id, teachers_only, held, group_id, release_at, release_id,
    hidden_reason, hidden_by, from_class)
  VALUES (@id, @classId, @teachersOnly, @held, @groupId, @releaseAt, @releaseId, @hiddenReason, @hiddenBy, @fromClass)
  ON CONFLICT DO NOTHING`;
const HIDE = `
  UPDATE annotation_class SET hidden_reason = @reason, hidden_by = @by WHERE annotation_id = @id AND class_id = @class`;
const ENDORSE = 'UPDATE annotation SET endorsed_by = ? WHERE id = ?';
const ANSWERED_AUTHOR = 'SELECT r.author_id FROM annotation a JOIN annotation r ON r.id = a.root_id WHERE a.id = ?';
const SET_AUDIENCE = 'UPDATE annotation SET audience = ? WHERE id = ?';
const REPLIES_OF = 'SELECT id FROM annotation WHERE root_id = ? AND deleted_at IS NULL';
const NOTIFY =
  'INSERT INTO notification (id, person_id, annotation_id, created_at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING';

/** Every annotation on a source that this person sees, replies included, in document order, with its place in a version. */
export const annotationsOf = (db: Db, me: PersonId, source: string, version: string | null = null): Annotation[] =>
  db.all<AnnotationRow>(OF_SOURCE, { me, source, version }).map(toWire);

export function annotationFor(db: Db, me: PersonId, id: string): Annotation | undefined {
  const row = db.get<AnnotationRow>(ONE, { me, id, version: null });
  return row && toWire(row);
}

/** Those of several that somebody sees, in no order. */
export const annotationsFor = (db: Db, me: PersonId, ids: readonly AnnotationId[]): Annotation[] =>
  db.all<AnnotationRow>(SOME, { me, ids: JSON.stringify(ids), version: null }).map(toWire);

const VIEWERS = 'SELECT person_id FROM annotation_visible WHERE annotation_id = ?';
/** Ids of all who see it. */
export const viewersOf = (db: Db, id: string): string[] =>
  db.all<{ personId: PersonId }>(VIEWERS, id).map((r) => r.personId);
/** One's own, also when deleted. */
export const ownAnnotation = (db: Db, me: PersonId, id: string): AnnotationRow | undefined =>
  db.get<AnnotationRow>(OWN, { me, id, version: null });
export const authorOf = (db: Db, id: string): PersonId | undefined =>
  db.get<{ authorId: PersonId }>(EXISTS, id)?.authorId;
/** A class an annotation is for, as it is stored. */
export interface StoredForClass extends ForClass {
  readonly releaseAt: string | null;
  readonly releaseId: string | null;
  readonly hiddenReason: string | null;
  readonly hiddenBy: PersonId | null;
  /** By which class that reads together with it; null where its author chose it. */
  readonly fromClass: ClassId | null;
}
export const forClasses = (db: Db, id: string): StoredForClass[] =>
  db
    .all<Omit<StoredForClass, 'teachersOnly' | 'held'> & { teachersOnly: number; held: number }>(CLASSES_FOR, id)
    .map((row) => ({
      ...row,
      teachersOnly: row.teachersOnly === 1,
      held: row.held === 1,
      hidden: row.hiddenReason !== null,
    }));
export const repliesOf = (db: Db, rootId: AnnotationId): string[] =>
  db.all<{ id: string }>(REPLIES_OF, rootId).map((r) => r.id);
export const insertNotification = (
  db: Db,
  id: string,
  { personId, annotationId }: { readonly personId: PersonId; readonly annotationId: AnnotationId },
  now: string,
): boolean => db.run(NOTIFY, id, personId, annotationId, now) > 0;

export interface NewAnnotation {
  readonly id: string;
  readonly sourceId: SourceId;
  readonly versionId: VersionId;
  readonly authorId: PersonId;
  readonly kind: KindCode;
  /** Whose Legend the kind stands in; the author's where nothing is said. */ readonly kindOwner?: LegendOwnerId;
  readonly note: string;
  readonly anchor: Anchor | null;
  readonly rootId: AnnotationId | null;
  readonly parentId: string | null;
  readonly tags: readonly string[];
  readonly classes: readonly ForClass[];
}

export function insertAnnotation(db: Db, a: NewAnnotation, now: string): void {
  db.run(
    INSERT_ANNOTATION,
    a.id,
    a.sourceId,
    a.versionId,
    a.authorId,
    a.kind,
    a.kindOwner ?? a.authorId,
    a.note,
    a.anchor?.quote.exact ?? '',
    a.anchor && JSON.stringify(a.anchor),
    a.anchor?.position.start ?? 0,
    a.rootId,
    a.parentId,
    now,
    now,
    audienceOf(a.authorId, a.classes, a.rootId === null ? undefined : authorOf(db, a.rootId)),
  );
  setTags(db, a.id, a.tags, now);
  setLinks(db, a.id, linksIn(a.note));
  for (const one of a.classes) addClass(db, a.id, one);
  if (a.classes.length > 0 && spread(db, a.id)) nameAudience(db, a.id);
}

export interface ChangedAnnotation {
  readonly kind: string;
  readonly kindOwner: LegendOwnerId;
  readonly note: string;
  readonly deletedAt: string | null;
}

/** False when the row is at another version by now. */
export function updateAnnotation(
  db: Db,
  { id, version }: { readonly id: AnnotationId; readonly version: number },
  to: ChangedAnnotation,
  now: string,
): boolean {
  return db.run(UPDATE, to.kind, to.kindOwner, to.note, to.deletedAt, now, id, version) > 0;
}

export function setPassage(db: Db, id: string, versionId: VersionId, anchor: Anchor): void {
  db.run(SET_PASSAGE, versionId, anchor.quote.exact, JSON.stringify(anchor), anchor.position.start, id);
  db.run(FORGET_PLACES, id);
}

/** Those that stay keep the time since when it bears them. */
export function setTags(db: Db, id: string, tags: readonly string[], now: string): void {
  db.run(KEEP_TAGS, id, JSON.stringify(tags));
  for (const tag of tags) db.run(ADD_TAG, id, tag, now);
}

function addClass(db: Db, id: string, { hidden: _hidden, ...to }: ForClass & Partial<StoredForClass>): void {
  const nothing = { releaseAt: null, releaseId: null, hiddenReason: null, hiddenBy: null, fromClass: null };
  db.run(ADD_CLASS, { ...nothing, ...to, id, teachersOnly: Number(to.teachersOnly), held: Number(to.held) });
}

/** Hides it from the students of a class, or shows it to them again. */
export function setHidden(
  db: Db,
  { id, classId }: { readonly id: AnnotationId; readonly classId: ClassId },
  { reason, by }: { readonly reason: string | null; readonly by: PersonId | null },
): void {
  db.run(HIDE, { id, class: classId, reason, by });
  nameAudience(db, id);
}
export const setEndorsed = (db: Db, id: AnnotationId, by: PersonId | null): number => db.run(ENDORSE, by, id);

export function setClasses(db: Db, id: AnnotationId, classes: readonly (ForClass & Partial<StoredForClass>)[]): void {
  db.run(CLEAR_CLASSES, id);
  for (const one of classes) addClass(db, id, one);
  nameAudience(db, id);
}

/** Says again in the annotation itself whom it is for, by which it is found; its answers follow it. */
export function nameAudience(db: Db, id: AnnotationId): void {
  if (spread(db, id)) for (const reply of repliesOf(db, id)) nameAudience(db, reply);
  const answers = db.get<{ authorId: PersonId }>(ANSWERED_AUTHOR, id)?.authorId;
  db.run(SET_AUDIENCE, audienceOf(authorOf(db, id)!, forClasses(db, id), answers), id);
}

export function toWire(row: AnnotationRow): Annotation {
  const made = row.anchor === null ? null : (JSON.parse(row.anchor) as Anchor);
  const anchor = made && row.deletedAt !== null ? withoutDrawing(made) : made;
  return {
    id: row.id,
    sourceId: row.sourceId,
    versionId: row.versionId,
    author: { id: row.authorId, name: row.authorName },
    ...(row.deletedAt === null
      ? { kind: kindFrom(row), note: row.note, tags: JSON.parse(row.tags) as string[] }
      : { kind: PLAIN_NOTE, note: '', tags: [], deleted: true as const }),
    anchor,
    ...quotedOf(row, anchor),
    place: anchor && placeOf({ ...row, start: row.placeStart }, anchor, row.versionId, row.viewedVersion),
    classIds: JSON.parse(row.classes) as string[],
    ...forWhom(row),
    rootId: row.rootId,
    parentId: row.parentId,
    createdAt: row.createdAt,
    updatedAt: row.updatedAt,
    version: row.version,
  };
}

function forWhom(
  row: AnnotationRow,
): Pick<Annotation, 'teachersOnly' | 'groups' | 'held' | 'hidden' | 'elsewhere' | 'endorsed'> {
  const groups = JSON.parse(row.groups) as NonNullable<Annotation['groups']>;
  const held = JSON.parse(row.held) as NonNullable<Annotation['held']>;
  const hidden = JSON.parse(row.hidden) as NonNullable<Annotation['hidden']>;
  return {
    ...(row.teachersOnly === 1 ? { teachersOnly: true as const } : {}),
    ...(groups.length > 0 ? { groups } : {}),
    ...(held.length > 0 ? { held } : {}),
    ...(hidden.length > 0 ? { hidden } : {}),
    ...(row.elsewhere === null ? {} : { elsewhere: row.elsewhere === 1 ? 'askable' : 'closed' }),
    ...(row.endorsed === null ? {} : { endorsed: row.endorsed }),
  };
}

function quotedOf({ inlines, deletedAt }: AnnotationRow, anchor: Anchor | null): Pick<Annotation, 'quoted'> {
  const within = anchor && deletedAt === null ? readInlines(inlines) : [];
  return within.length > 0 ? { quoted: markQuote(anchor!.quote.exact, [], anchor!.position.start, within) } : {};
}

/** Of what was taken back only the place is told, not what had been drawn there. */
function withoutDrawing({ spot, ...words }: Anchor): Anchor {
  return spot === undefined || spot.type === 'drawn' ? words : { ...words, spot };
}
