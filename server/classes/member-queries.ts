import type { AnnotationId, ClassLabel, ClassRole, ClassId, PersonId } from '@avrelle/core/wire';
import { nameAudience } from '../annotations/queries';
import type { Db } from '../db/database';

const TEACHERS = "SELECT count(*) AS n FROM membership WHERE class_id = ? AND role = 'teacher'";
const SET_ROLE = 'UPDATE membership SET role = ? WHERE class_id = ? AND person_id = ?';
const REMOVE = 'DELETE FROM membership WHERE class_id = ? AND person_id = ?';
const MEMBERS = 'SELECT person_id AS id FROM membership WHERE class_id = ?';

export const teachersOf = (db: Db, classId: ClassId): number => db.get<{ n: number }>(TEACHERS, classId)!.n;
export const setRole = (db: Db, classId: ClassId, personId: PersonId, role: ClassRole): boolean =>
  db.run(SET_ROLE, role, classId, personId) > 0;
export const removeMembership = (db: Db, classId: ClassId, personId: PersonId): boolean =>
  db.run(REMOVE, classId, personId) > 0;
export const memberIds = (db: Db, classId: ClassId): string[] =>
  db.all<{ id: string }>(MEMBERS, classId).map((m) => m.id);

const SET_DELETED = 'UPDATE class SET deleted_at = ? WHERE id = ?';
const MEMBER = 'class_id, person_id, role, joined_at, group_id';
const SET_ASIDE = `INSERT INTO former_membership (${MEMBER}) SELECT ${MEMBER} FROM membership WHERE class_id = ?`;
const REMOVE_ALL = 'DELETE FROM membership WHERE class_id = ?';
const BRING_BACK = `INSERT INTO membership (${MEMBER}) SELECT ${MEMBER} FROM former_membership WHERE class_id = ?`;
const REMOVE_ASIDE = 'DELETE FROM former_membership WHERE class_id = ?';
const DELETED = `SELECT c.id, c.name, c.tint, c.deleted_at AS deletedAt FROM former_membership f JOIN class c ON c.id = f.class_id
  WHERE f.person_id = ? AND f.role = 'teacher' AND c.deleted_at IS NOT NULL ORDER BY c.deleted_at DESC`;
const FROM_EXPIRED = `
  SELECT DISTINCT x.annotation_id FROM class c JOIN annotation_class x ON x.from_class = c.id WHERE c.deleted_at < ?`;
const REMOVE_EXPIRED = 'DELETE FROM class WHERE deleted_at < ?';

/** Without members nobody sees anything by it; they are set aside until it is brought back. */
export function setClassDeleted(db: Db, classId: ClassId, now: string): void {
  db.run(SET_DELETED, now, classId);
  db.run(SET_ASIDE, classId);
  db.run(REMOVE_ALL, classId);
}
export function bringClassBack(db: Db, classId: ClassId): void {
  db.run(SET_DELETED, null, classId);
  db.run(BRING_BACK, classId);
  db.run(REMOVE_ASIDE, classId);
}
/** Deleted classes that somebody taught. */
export const deletedClassesOf = (db: Db, personId: PersonId): (ClassLabel & { readonly deletedAt: string })[] =>
  db.all(DELETED, personId);
/** What came from them into classes that read together with them goes, too, and is no longer found there. */
export function removeExpiredClasses(db: Db, before: string): void {
  const elsewhere = db.all<{ annotationId: AnnotationId }>(FROM_EXPIRED, before);
  db.run(REMOVE_EXPIRED, before);
  for (const { annotationId } of elsewhere) nameAudience(db, annotationId);
}
