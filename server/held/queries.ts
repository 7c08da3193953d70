import type { AnnotationId, ClassId, HeldNote, PersonId, SourceId } from '@avrelle/core/wire';
import { MOST_HELD } from '@avrelle/core/wire';
import { CLASS_NOTE, classNoteOf, type ClassNoteRow } from '../annotations/class-note';
import type { Db } from '../db/database';
import { KIND_JOIN } from '../legend/queries';

export const HELD = `
  SELECT ${CLASS_NOTE}, ac.release_at
  FROM annotation_class ac
  JOIN annotation a ON a.id = ac.annotation_id AND a.deleted_at IS NULL AND a.root_id IS NULL
  JOIN class_source cs ON cs.class_id = ac.class_id AND cs.source_id = a.source_id
  JOIN source s ON s.id = a.source_id AND s.deleted_at IS NULL
  JOIN person p ON p.id = a.author_id ${KIND_JOIN}
  WHERE ac.class_id = ? AND ac.held = 1 ORDER BY folded(s.title), s.id, a.start, a.created_at LIMIT ${MOST_HELD}`;

/** What is held in a class, reading by reading, in the order of the text. */
export const heldIn = (db: Db, classId: ClassId): HeldNote[] =>
  db
    .all<ClassNoteRow & Pick<HeldNote, 'releaseAt'>>(HELD, classId)
    .map((row) => ({ ...classNoteOf(row), releaseAt: row.releaseAt }));

/** In a class, of some annotations. */
export interface Some {
  readonly classId: ClassId;
  readonly annotationIds: readonly AnnotationId[];
}
const bound = ({ classId, annotationIds }: Some) => ({ class: classId, ids: JSON.stringify(annotationIds) });
const OF = 'ac.class_id = @class AND ac.annotation_id IN (SELECT value FROM json_each(@ids))';

export interface Released {
  readonly annotationId: AnnotationId;
  readonly sourceId: SourceId;
  readonly authorId: PersonId;
}
const WITH = `
  SELECT ac.annotation_id, a.source_id, a.author_id
  FROM annotation_class ac JOIN annotation a ON a.id = ac.annotation_id
  WHERE ${OF} AND a.deleted_at IS NULL`;
/** Those that are held. */
export const heldOf = (db: Db, some: Some): Released[] => db.all(`${WITH} AND ac.held = 1`, bound(some));
/** Those that were held, and have been released. */
export const releasedOf = (db: Db, some: Some): Released[] =>
  db.all(`${WITH} AND ac.held = 0 AND ac.release_id IS NOT NULL`, bound(some));

const INSERT_RELEASE =
  'INSERT INTO release (id, class_id, source_id, released_by, released_at) VALUES (@id, @class, @source, @by, @now)';
const RELEASE = `
  UPDATE annotation_class AS ac SET held = 0, release_at = NULL, release_id = @release
  WHERE ${OF} AND held = 1`;
const HOLD = `UPDATE annotation_class AS ac SET held = 1, release_id = NULL WHERE ${OF} AND release_id IS NOT NULL`;
const SET_TIME = `UPDATE annotation_class AS ac SET release_at = @at WHERE ${OF} AND held = 1`;
/** Nothing is told of a release of which nothing is left. */
const CLEAR = `
  DELETE FROM release WHERE class_id = ? AND NOT EXISTS (
    SELECT 1 FROM annotation_class ac WHERE ac.release_id = release.id)`;

export function insertRelease(
  db: Db,
  some: Some,
  at: { readonly id: string; readonly sourceId: SourceId; readonly by: PersonId | null; readonly now: string },
): void {
  const { id, sourceId, by, now } = at;
  db.run(INSERT_RELEASE, { id, class: some.classId, source: sourceId, by, now });
  db.run(RELEASE, { ...bound(some), release: id });
}
export function holdAgain(db: Db, some: Some): void {
  db.run(HOLD, bound(some));
  db.run(CLEAR, some.classId);
}
export const setReleaseTime = (db: Db, some: Some, at: string | null): number =>
  db.run(SET_TIME, { ...bound(some), at });

/** The students of a class that see any of some annotations of others now. */
export const STUDENTS_SEEING = `
  SELECT m.person_id FROM membership m WHERE m.class_id = @class AND m.role = 'student' AND EXISTS (
    SELECT 1 FROM json_each(@ids) j JOIN annotation a ON a.id = j.value
    WHERE a.author_id <> m.person_id AND EXISTS (
      SELECT 1 FROM annotation_visible v WHERE v.person_id = m.person_id AND v.seq = a.seq))`;
export const studentsSeeing = (db: Db, some: Some): PersonId[] =>
  db.all<{ personId: PersonId }>(STUDENTS_SEEING, bound(some)).map((r) => r.personId);
const TELL = `
  INSERT INTO notification (id, person_id, release_id, created_at) VALUES (@id, @person, @release, @now)
  ON CONFLICT DO NOTHING`;
export const tellRelease = (
  db: Db,
  told: { readonly id: string; readonly person: PersonId; readonly release: string; readonly now: string },
): number => db.run(TELL, told);

const READERS = `
  SELECT count(DISTINCT n.person_id) AS people FROM annotation_seen n
  JOIN membership m ON m.class_id = @class AND m.person_id = n.person_id AND m.role = 'student'
  WHERE n.annotation_id IN (SELECT value FROM json_each(@ids))`;
/** How many students of a class have had any of them before their eyes. */
export const readersOf = (db: Db, some: Some): number => db.get<{ people: number }>(READERS, bound(some))!.people;

const SEE = `
  INSERT INTO annotation_seen (annotation_id, person_id, seen_at)
  SELECT a.id, @me, @now FROM json_each(@ids) j
  JOIN annotation a ON a.id = j.value AND a.author_id <> @me
  WHERE EXISTS (SELECT 1 FROM annotation_visible v WHERE v.annotation_id = a.id AND v.person_id = @me)
  ON CONFLICT DO NOTHING`;
export const see = (db: Db, me: PersonId, annotationIds: readonly AnnotationId[], now: string): number =>
  db.run(SEE, { me, ids: JSON.stringify(annotationIds), now });

/** What is deleted waits, and is released when that is taken back. */
export const DUE = `
  SELECT ac.class_id, ac.annotation_id FROM annotation_class ac
  JOIN annotation a ON a.id = ac.annotation_id AND a.deleted_at IS NULL
  WHERE ac.held = 1 AND ac.release_at <= @now`;
export const isReleaseDue = (db: Db, now: string): boolean => db.get(DUE, { now }) !== undefined;
/** What time has come for, class by class. */
export function dueReleases(db: Db, now: string): Some[] {
  const rows = db.all<{ classId: ClassId; annotationId: AnnotationId }>(DUE, { now });
  return [...new Set(rows.map((row) => row.classId))].map((classId) => ({
    classId,
    annotationIds: rows.filter((row) => row.classId === classId).map((row) => row.annotationId),
  }));
}
