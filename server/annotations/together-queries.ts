import type { AnnotationId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

/**
 * In which further classes an annotation stands, and by which of those that its author chose: classes read together
 * what all of one see, an answer only where what it answers stands. What students wrote before is not among it.
 */
export const FURTHER = `
  SELECT a.id AS annotation_id, o.class_id, min(g.class_id) AS from_class
  FROM annotation a
  JOIN annotation_class ac ON ac.annotation_id = a.id AND ac.from_class IS NULL AND ac.teachers_only = 0 AND ac.held = 0
    AND ac.hidden_reason IS NULL AND ac.group_id IS NULL
  JOIN assignment g ON g.class_id = ac.class_id AND g.source_id = a.source_id AND g.together_id IS NOT NULL
  JOIN class_source cs ON cs.class_id = g.class_id AND cs.source_id = g.source_id
  JOIN assignment o ON o.together_id = g.together_id AND o.class_id <> g.class_id
  JOIN class_source os ON os.class_id = o.class_id AND os.source_id = o.source_id
  WHERE a.id = @id
    AND (a.created_at >= g.together_since OR EXISTS (
      SELECT 1 FROM membership t WHERE t.class_id = g.class_id AND t.person_id = a.author_id AND t.role <> 'student'))
    AND (a.root_id IS NULL OR EXISTS (
      SELECT 1 FROM annotation_class r WHERE r.annotation_id = a.root_id AND r.class_id = o.class_id))
    AND NOT EXISTS (
      SELECT 1 FROM annotation_class x
      WHERE x.annotation_id = a.id AND x.class_id = o.class_id AND x.from_class IS NULL)
  GROUP BY a.id, o.class_id`;
const TAKE = `
  DELETE FROM annotation_class
  WHERE annotation_id = @id AND from_class IS NOT NULL AND hidden_reason IS NULL
    AND class_id NOT IN (SELECT class_id FROM (${FURTHER}))`;
const GIVE = `
  INSERT INTO annotation_class (annotation_id, class_id, from_class) SELECT * FROM (${FURTHER}) WHERE true
  ON CONFLICT (annotation_id, class_id) DO UPDATE SET from_class = excluded.from_class
  WHERE from_class <> excluded.from_class`;

/**
 * Puts an annotation into the classes that read together with those it is for, and takes it from those that do no
 * longer, where it is not hidden from their students; false where nothing was to do.
 */
export const spread = (db: Db, id: AnnotationId): boolean => db.run(TAKE, { id }) + db.run(GIVE, { id }) > 0;
