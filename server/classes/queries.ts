import type {
  ClassDetail,
  ClassLabel,
  ClassPut,
  ClassRole,
  ClassRow,
  Member,
  ClassId,
  GroupId,
  PersonId,
  SourceId,
} from '@avrelle/core/wire';
import { IS_OPEN_CLASS } from '../access/visible-queries';
import type { Db } from '../db/database';

/** How many marks or answers there are for all of a class: what not all see is not counted. */
const written = (where: string): string => `(
  SELECT count(*) FROM annotation_class x JOIN annotation a ON a.id = x.annotation_id
  WHERE x.teachers_only = 0 AND x.held = 0 AND x.group_id IS NULL AND x.hidden_reason IS NULL
    AND a.deleted_at IS NULL AND ${where})`;
/** The groups one may write for: who teaches, all; students their own. */
const GROUPS = `(
  SELECT json_group_array(json_object('id', cg.id, 'name', cg.name) ORDER BY cg.position) FROM class_group cg
  WHERE cg.class_id = c.id AND cg.dissolved = 0 AND (m.role <> 'student' OR cg.id = m.group_id)) AS groups`;
const COUNTS = `
  (SELECT count(*) FROM membership x WHERE x.class_id = c.id) AS people,
  (SELECT count(*) FROM class_reach x WHERE x.class_id = c.id AND x.person_id = m.person_id) AS sources,
  ${written('x.class_id = c.id AND a.root_id IS NULL')} AS annotations`;
const CLASSES_OF = `
  SELECT c.id, c.name, c.tint, m.role, c.archived_at, ${GROUPS}, ${COUNTS}
  FROM membership m JOIN class c ON c.id = m.class_id WHERE m.person_id = ? ORDER BY c.name`;
const CLASS_FOR = `
  SELECT c.id, c.name, c.tint, CASE WHEN c.code_open THEN c.code END AS code, c.version, m.role, c.archived_at,
    c.groups_version, ${GROUPS},
    (SELECT count(*) FROM join_request q WHERE q.class_id = c.id AND q.refused_at IS NULL) AS asking, ${COUNTS}
  FROM membership m JOIN class c ON c.id = m.class_id WHERE m.person_id = ? AND c.id = ?`;
const MEMBERS = `
  SELECT p.id, p.name, m.role, m.group_id,
    ${written('x.class_id = m.class_id AND a.author_id = p.id AND a.root_id IS NULL')} AS annotations,
    ${written('x.class_id = m.class_id AND a.author_id = p.id AND a.root_id IS NOT NULL')} AS replies
  FROM membership m JOIN person p ON p.id = m.person_id
  WHERE m.class_id = ? ORDER BY m.role = 'student', p.name`;
const INSERT_CLASS =
  'INSERT INTO class (id, name, tint, code, created_by, created_at) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING';
const UPDATE_CLASS = 'UPDATE class SET name = ?, tint = ?, version = version + 1 WHERE id = ? AND version = ?';
const BY_ID = 'SELECT id, name, tint FROM class WHERE id = ?';
const JOIN = 'INSERT INTO membership (class_id, person_id, role, joined_at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING';
const ADD_SOURCE =
  'INSERT INTO class_source (class_id, source_id, added_by, added_at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING';
const REMOVE_SOURCE = 'DELETE FROM class_source WHERE class_id = ? AND source_id = ?';
const HAS_SOURCE = 'SELECT added_by FROM class_source WHERE class_id = ? AND source_id = ?';

const READINGS =
  'SELECT source_id AS id FROM class_source WHERE class_id = ? ORDER BY added_at DESC, source_id DESC LIMIT ? OFFSET ?';
/** Ids of the sources of a class, the last added first. */
export const readingsOf = (db: Db, classId: ClassId, offset: number, limit: number): string[] =>
  db.all<{ id: string }>(READINGS, classId, limit, offset).map((r) => r.id);
const MEMBERSHIPS =
  'SELECT m.class_id, m.person_id, m.role, m.group_id FROM json_each(?) j JOIN membership m ON m.class_id = j.value';
export interface Membership {
  readonly classId: ClassId;
  readonly personId: PersonId;
  readonly role: ClassRole;
  readonly groupId: GroupId | null;
}
/** Who is in any of some classes. */
export const membershipsOf = (db: Db, classIds: readonly ClassId[]): Membership[] =>
  db.all(MEMBERSHIPS, JSON.stringify(classIds));
const withGroups = <Row extends { readonly groups: string }>(row: Row) => ({
  ...row,
  groups: JSON.parse(row.groups) as ClassRow['groups'],
});
export const classesOf = (db: Db, personId: PersonId): ClassRow[] =>
  db.all<Omit<ClassRow, 'groups'> & { groups: string }>(CLASSES_OF, personId).map(withGroups);
export const classLabel = (db: Db, classId: ClassId): ClassLabel | undefined => db.get<ClassLabel>(BY_ID, classId);
interface NewMember {
  readonly classId: ClassId;
  readonly personId: PersonId;
  readonly role: ClassRole;
}
export const joinClass = (db: Db, { classId, personId, role }: NewMember, now: string): boolean =>
  db.run(JOIN, classId, personId, role, now) > 0;
interface NewReading {
  readonly classId: ClassId;
  readonly sourceId: SourceId;
  /** Who added it. */
  readonly personId: PersonId;
}
export const addClassSource = (db: Db, { classId, sourceId, personId }: NewReading, now: string): boolean =>
  db.run(ADD_SOURCE, classId, sourceId, personId, now) > 0;
export const removeClassSource = (db: Db, classId: ClassId, sourceId: SourceId): boolean =>
  db.run(REMOVE_SOURCE, classId, sourceId) > 0;
export const sourceAddedBy = (db: Db, classId: ClassId, sourceId: SourceId): string | undefined =>
  db.get<{ addedBy: string }>(HAS_SOURCE, classId, sourceId)?.addedBy;

interface NewClass {
  readonly id: ClassId;
  readonly code: string;
  /** Who made it. */
  readonly personId: PersonId;
}
export function insertClass(db: Db, { id, code, personId }: NewClass, { name, tint }: ClassPut, now: string): boolean {
  return db.run(INSERT_CLASS, id, name, tint, code, personId, now) > 0;
}

/** False when it is at another version by now. */
export const updateClass = (db: Db, id: string, { name, tint, version = 0 }: ClassPut): boolean =>
  db.run(UPDATE_CLASS, name, tint, id, version) > 0;

/** The class as one of its members sees it, without its readings; undefined for anybody else. */
export function classFor(db: Db, personId: PersonId, classId: ClassId): Omit<ClassDetail, 'readings'> | undefined {
  const row = db.get<Omit<ClassDetail, 'readings' | 'members' | 'groups'> & { groups: string }>(
    CLASS_FOR,
    personId,
    classId,
  );
  const forStudents = row?.role === 'student' ? { code: null, asking: 0 } : {};
  return row && { ...withGroups(row), ...forStudents, members: db.all<Member>(MEMBERS, classId) };
}

const ARCHIVED = 'SELECT name FROM class WHERE id = ? AND archived_at IS NOT NULL';
const SET_ARCHIVED = 'UPDATE class SET archived_at = ? WHERE id = ? AND (archived_at IS NULL) = (? IS NOT NULL)';
/** The name of a class that is only looked at. */
export const archivedClass = (db: Db, classId: ClassId): string | undefined =>
  db.get<{ name: string }>(ARCHIVED, classId)?.name;
/** False where it was so already. */
export const setArchived = (db: Db, classId: ClassId, at: string | null): boolean =>
  db.run(SET_ARCHIVED, at, classId, at) > 0;

const IN_ORDER = `
  SELECT cs.source_id AS id FROM class_source cs JOIN source s ON s.id = cs.source_id AND s.deleted_at IS NULL
  WHERE cs.class_id = ? ORDER BY cs.added_at, cs.source_id`;
/** Ids of all the sources of a class, the first added first. */
export const readingsInOrder = (db: Db, classId: ClassId): SourceId[] =>
  db.all<{ id: SourceId }>(IN_ORDER, classId).map((r) => r.id);

const OPEN_AMONG = `SELECT c.id, c.askable FROM json_each(?) j JOIN class c ON c.id = j.value AND ${IS_OPEN_CLASS}`;
/** Of some classes, those that others can join, and whether those may ask who meet a note of it. */
export const openAmong = (db: Db, classIds: readonly ClassId[]): { id: ClassId; askable: number }[] =>
  db.all(OPEN_AMONG, JSON.stringify(classIds));
