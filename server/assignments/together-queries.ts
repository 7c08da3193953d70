import type { AnnotationId, ClassId, ClassLabel } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import type { Place } from './queries';

const TOGETHER = `
  SELECT g.together_id FROM assignment g WHERE g.class_id = ? AND g.source_id = ? AND EXISTS (
    SELECT 1 FROM assignment o WHERE o.together_id = g.together_id AND o.class_id <> g.class_id)`;
const JOIN = `
  UPDATE assignment SET together_id = @together, together_since = @now
  WHERE class_id = @class AND source_id = @source AND together_id IS NOT @together`;
export const OTHERS = `
  SELECT c.id, c.name, c.tint FROM assignment g
  JOIN assignment o ON o.together_id = g.together_id AND o.class_id <> g.class_id JOIN class c ON c.id = o.class_id
  WHERE g.class_id = @class AND g.source_id = @source ORDER BY c.name, c.id`;
export const STANDING = `
  SELECT a.id FROM annotation_class ac JOIN annotation a ON a.id = ac.annotation_id AND a.source_id = @source
  WHERE ac.class_id = @class ORDER BY a.root_id IS NOT NULL, a.seq`;

/** What it has in common with the others; null where it reads by itself. */
export const togetherOf = (db: Db, { classId, sourceId }: Place): string | null =>
  db.get<{ togetherId: string | null }>(TOGETHER, classId, sourceId)?.togetherId ?? null;
/** Null by itself again; false where it was so already. */
export const setTogether = (db: Db, { classId, sourceId }: Place, together: string | null, now: string): boolean =>
  db.run(JOIN, { class: classId, source: sourceId, together, now: together && now }) > 0;
/** The other classes that read it together with this one. */
export const readingTogether = (db: Db, { classId, sourceId }: Place): ClassLabel[] =>
  db.all<ClassLabel>(OTHERS, { class: classId, source: sourceId });
/** What stands in a class on a source, what is answered before its answers. */
export const standingIn = (db: Db, { classId, sourceId }: { classId: ClassId; sourceId: Place['sourceId'] }) =>
  db.all<{ id: AnnotationId }>(STANDING, { class: classId, source: sourceId }).map(({ id }) => id);
