import type { AnnotationId, ClassId, PersonId, SourceId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

/** What happened in a class: somebody was let in where nothing else is said, a reading was set, answers are shown. */
export interface InClass {
  readonly classId: ClassId;
  readonly sourceId?: SourceId;
  readonly questionId?: AnnotationId;
}

const TELL_OF_OWN = `
  INSERT INTO notification (id, person_id, annotation_id, created_at) VALUES (@id, @person, @annotation, @now)
  ON CONFLICT (person_id, annotation_id) DO UPDATE SET created_at = @now, seen_at = NULL`;
/** Something has happened to what somebody wrote; once more, it stands as new again. */
export const tellOfOwn = (
  db: Db,
  told: { readonly id: string; readonly person: PersonId; readonly annotation: AnnotationId; readonly now: string },
): number => db.run(TELL_OF_OWN, told);

export const STUDENTS = "SELECT person_id FROM membership WHERE class_id = ? AND role = 'student'";
export const studentsIn = (db: Db, classId: ClassId): PersonId[] =>
  db.all<{ personId: PersonId }>(STUDENTS, classId).map((row) => row.personId);

const TELL = `
  INSERT INTO notification (id, person_id, class_id, source_id, question_id, by_id, created_at)
  VALUES (@id, @person, @class, @source, @question, @by, @now)
  ON CONFLICT (person_id, class_id, coalesce(source_id, ''), coalesce(question_id, ''))
  DO UPDATE SET by_id = @by, created_at = @now, again = again OR seen_at IS NOT NULL, seen_at = NULL`;
export const tell = (
  db: Db,
  told: { readonly id: string; readonly person: PersonId; readonly by: PersonId; readonly now: string },
  { classId, sourceId, questionId }: InClass,
): number => db.run(TELL, { ...told, class: classId, source: sourceId ?? null, question: questionId ?? null });
