import type { AnnotationId, ClassId, PersonId, Report } from '@avrelle/core/wire';
import type { Db } from '../db/database';

interface What {
  readonly classId: ClassId;
  readonly annotationId: AnnotationId;
}

const REPORT = `
  INSERT INTO report (class_id, annotation_id, person_id, words, reported_at)
  VALUES (@classId, @annotationId, @person, @words, @now)
  ON CONFLICT DO UPDATE SET words = @words, reported_at = @now, settled_at = NULL`;
const SETTLE = `
  UPDATE report SET settled_at = @now
  WHERE class_id = @classId AND annotation_id = @annotationId AND settled_at IS NULL`;
export const REPORTS = `
  SELECT r.annotation_id, r.person_id, p.name, r.words, r.reported_at FROM report r
  JOIN person p ON p.id = r.person_id
  JOIN annotation a ON a.id = r.annotation_id AND a.deleted_at IS NULL
  WHERE r.class_id = ? AND r.settled_at IS NULL ORDER BY r.reported_at DESC`;

export const putReport = (db: Db, what: What, by: { person: PersonId; words: string; now: string }): number =>
  db.run(REPORT, { ...what, ...by });
export const settle = (db: Db, what: What, now: string): number => db.run(SETTLE, { ...what, now });

interface Row {
  readonly annotationId: AnnotationId;
  readonly personId: PersonId;
  readonly name: string;
  readonly words: string;
  readonly reportedAt: string;
}
/** What is reported in a class and not settled, the last first. */
export const reportsIn = (db: Db, classId: ClassId): Report[] =>
  db.all<Row>(REPORTS, classId).map(({ annotationId, personId, name, words, reportedAt }) => ({
    annotationId,
    by: { id: personId, name },
    words,
    at: reportedAt,
  }));
