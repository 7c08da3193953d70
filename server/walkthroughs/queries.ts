import type {
  AnnotationId,
  ClassId,
  PersonId,
  StepNote,
  WalkthroughId,
  WalkthroughPut,
  WalkthroughRow,
} from '@avrelle/core/wire';
import { sees } from '../access/visible-queries';
import { CLASS_NOTE, classNoteOf, type ClassNoteRow } from '../annotations/class-note';
import type { Db } from '../db/database';
import { KIND_JOIN } from '../legend/queries';

const ROW = `
  SELECT w.id, w.name, w.version, w.changed_at, p.name AS by,
    (SELECT count(*) FROM walkthrough_step t WHERE t.walkthrough_id = w.id) AS steps
  FROM walkthrough w JOIN person p ON p.id = w.made_by`;
export const OF_CLASS = `${ROW} WHERE w.class_id = ? AND w.deleted_at IS NULL ORDER BY w.changed_at DESC, w.id`;
const ONE = `${ROW} WHERE w.id = ? AND w.class_id = ? AND w.deleted_at IS NULL`;

export const walkthroughsIn = (db: Db, classId: ClassId): WalkthroughRow[] => db.all<WalkthroughRow>(OF_CLASS, classId);
export const walkthroughRow = (db: Db, classId: ClassId, id: WalkthroughId): WalkthroughRow | undefined =>
  db.get<WalkthroughRow>(ONE, id, classId);

const OWNER = 'SELECT class_id, version, deleted_at FROM walkthrough WHERE id = ?';
/** Of whichever class, deleted or not. */
export const storedWalkthrough = (
  db: Db,
  id: WalkthroughId,
): { readonly classId: ClassId; readonly version: number; readonly deletedAt: string | null } | undefined =>
  db.get(OWNER, id);

/** A note `a` as it can stand in a walkthrough of the class `@class`. */
const STEP_NOTE = `
  ${CLASS_NOTE}, json_extract(a.anchor, '$.spot.type') AS spot,
  (SELECT count(*) FROM annotation r WHERE r.root_id = a.id AND r.deleted_at IS NULL AND ${sees('r')}) AS answers,
  EXISTS (SELECT 1 FROM question q WHERE q.annotation_id = a.id AND q.withdrawn = 0) AS asks,
  CASE WHEN NOT EXISTS (
      SELECT 1 FROM class_source cs WHERE cs.class_id = @class AND cs.source_id = a.source_id) THEN 'unseen'
    ELSE coalesce((
      SELECT CASE WHEN ac.teachers_only OR ac.hidden_reason IS NOT NULL THEN 'unseen' WHEN ac.held THEN 'held'
        ELSE 'seen' END
      FROM annotation_class ac WHERE ac.annotation_id = a.id AND ac.class_id = @class), 'unseen')
  END AS seen,
  a.author_id = @me AND NOT EXISTS (
    SELECT 1 FROM annotation_class ac
    WHERE ac.annotation_id = a.id AND (ac.teachers_only OR ac.held OR ac.hidden_reason IS NOT NULL)) AS can_show`;
const NOTE_JOIN = `JOIN source s ON s.id = a.source_id JOIN person p ON p.id = a.author_id ${KIND_JOIN}`;
interface StepNoteRow extends ClassNoteRow, Pick<StepNote, 'answers' | 'spot' | 'seen'> {
  readonly asks: number;
  readonly canShow: number;
}
const stepNoteOf = (row: StepNoteRow): StepNote => ({
  ...classNoteOf(row),
  answers: row.answers,
  spot: row.spot,
  asks: row.asks === 1,
  seen: row.seen,
  canShow: row.canShow === 1,
});

export interface StepRow {
  readonly annotationId: AnnotationId;
  readonly words: string;
}
const STEPS = 'SELECT annotation_id, words FROM walkthrough_step WHERE walkthrough_id = ? ORDER BY position';
export const stepsOf = (db: Db, id: WalkthroughId): StepRow[] => db.all<StepRow>(STEPS, id);

export const STEP_NOTES = `
  SELECT ${STEP_NOTE} FROM json_each(@ids) j JOIN annotation a ON a.id = j.value ${NOTE_JOIN}
  WHERE a.deleted_at IS NULL AND ${sees('a')}`;
/** Of some notes, those that somebody sees. */
export const stepNotes = (
  db: Db,
  me: PersonId,
  classId: ClassId,
  ids: readonly AnnotationId[],
): ReadonlyMap<AnnotationId, StepNote> =>
  new Map(
    db
      .all<StepNoteRow>(STEP_NOTES, { me, class: classId, ids: JSON.stringify(ids) })
      .map((row) => [row.id, stepNoteOf(row)]),
  );

const MOST_STARRED = 300;
export const STARRED = `
  SELECT ${STEP_NOTE} FROM annotation_star st JOIN annotation a ON a.id = st.annotation_id ${NOTE_JOIN}
  WHERE st.person_id = @me AND a.deleted_at IS NULL AND a.root_id IS NULL AND ${sees('a')}
  ORDER BY st.starred_at DESC, a.id LIMIT ${MOST_STARRED}`;
export const starredNotes = (db: Db, me: PersonId, classId: ClassId): StepNote[] =>
  db.all<StepNoteRow>(STARRED, { me, class: classId }).map(stepNoteOf);

const INSERT = `
  INSERT INTO walkthrough (id, class_id, name, made_by, made_at, changed_at)
  VALUES (@id, @class, @name, @me, @now, @now)`;
const UPDATE = 'UPDATE walkthrough SET name = @name, changed_at = @now, version = version + 1 WHERE id = @id';
const CLEAR_STEPS = 'DELETE FROM walkthrough_step WHERE walkthrough_id = ?';
const ADD_STEP = `
  INSERT INTO walkthrough_step (walkthrough_id, position, annotation_id, words)
  VALUES (@id, @position, @annotationId, @words)`;
const DELETE = `
  UPDATE walkthrough SET deleted_at = @now
  WHERE id = @id AND class_id = @class AND (deleted_at IS NULL) = (@now IS NOT NULL)`;

interface At {
  readonly me: PersonId;
  readonly now: string;
}
export function insertWalkthrough(
  db: Db,
  { id, classId, name }: { readonly id: WalkthroughId; readonly classId: ClassId; readonly name: string },
  { me, now }: At,
): void {
  db.run(INSERT, { id, class: classId, name, me, now });
}
export const updateWalkthrough = (db: Db, id: WalkthroughId, name: string, now: string): number =>
  db.run(UPDATE, { id, name, now });
export function setSteps(db: Db, id: WalkthroughId, steps: WalkthroughPut['steps']): void {
  db.run(CLEAR_STEPS, id);
  steps.forEach(({ annotationId, words }, position) => db.run(ADD_STEP, { id, position, annotationId, words }));
}
/** False where it was so already, or is of another class. */
export const setWalkthroughDeleted = (db: Db, classId: ClassId, id: WalkthroughId, now: string | null): boolean =>
  db.run(DELETE, { id, class: classId, now }) > 0;
