import type { ClassId, GroupId, PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

const VERSION = 'SELECT groups_version AS version FROM class WHERE id = ?';
const RAISE = 'UPDATE class SET groups_version = groups_version + 1 WHERE id = ?';
const DISSOLVE = 'UPDATE class_group SET dissolved = 1 WHERE class_id = ?';
const PUT = `
  INSERT INTO class_group (id, class_id, name, position) VALUES (@id, @class, @name, @position)
  ON CONFLICT (id) DO UPDATE SET name = @name, position = @position, dissolved = 0 WHERE class_id = @class`;
const LEAVE = 'UPDATE membership SET group_id = NULL WHERE class_id = ?';
const JOIN = `
  UPDATE membership SET group_id = @group
  WHERE class_id = @class AND role = 'student' AND person_id IN (SELECT value FROM json_each(@people))`;

export const groupsVersion = (db: Db, classId: ClassId): number =>
  db.get<{ version: number }>(VERSION, classId)!.version;
export function clearGroups(db: Db, classId: ClassId): void {
  db.run(RAISE, classId);
  db.run(DISSOLVE, classId);
  db.run(LEAVE, classId);
}

interface NewGroup {
  readonly id: GroupId;
  readonly name: string;
  readonly personIds: readonly PersonId[];
}
/** False where the id is that of a group of another class. */
export function putGroup(db: Db, classId: ClassId, { id, name, personIds }: NewGroup, position: number): boolean {
  if (db.run(PUT, { id, class: classId, name, position }) === 0) return false;
  db.run(JOIN, { group: id, class: classId, people: JSON.stringify(personIds) });
  return true;
}

const OF = `
  SELECT cg.id, cg.class_id, m.role <> 'student' OR m.group_id = cg.id AS mine
  FROM json_each(@ids) j JOIN class_group cg ON cg.id = j.value AND cg.dissolved = 0
  JOIN membership m ON m.class_id = cg.class_id AND m.person_id = @me`;
/** Groups of the classes of somebody, and whether they may write for them. */
export const groupsFor = (
  db: Db,
  me: PersonId,
  ids: readonly GroupId[],
): { readonly id: GroupId; readonly classId: ClassId; readonly mine: number }[] =>
  db.all(OF, { me, ids: JSON.stringify(ids) });
