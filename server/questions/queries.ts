import type { Given, QuestionForm } from '@avrelle/core/class';
import type {
  AnnotationId,
  ClassId,
  ClassLabel,
  PersonId,
  QuestionPut,
  QuestionsLeft,
  SourceId,
} from '@avrelle/core/wire';
import { isSetFor, isSetForGroup, isShownTo, sees } from '../access/visible-queries';
import { CLASS_NOTE, type ClassNoteRow } from '../annotations/class-note';
import type { Db } from '../db/database';
import { KIND_JOIN } from '../legend/queries';

/** As it is stored, with the note that asks it. */
export interface QuestionRow extends ClassNoteRow {
  readonly form: QuestionForm;
  /** JSON. */
  readonly choices: string;
  readonly right: string;
  readonly number: number | null;
  readonly tolerance: number;
  readonly unit: string;
  readonly model: string;
  readonly answersShown: QuestionPut['answersShown'];
  readonly version: number;
}

/** Which of the questions that somebody sees: of a source, of a class, or one. */
export type Which =
  { readonly sourceId: SourceId } | { readonly classId: ClassId } | { readonly annotationId: AnnotationId };

const questions = (only: string): string => `
  SELECT ${CLASS_NOTE}, q.form, q.choices, q.right, q.number, q.tolerance, q.unit, q.model, q.answers_shown, q.version
  FROM annotation a JOIN question q ON q.annotation_id = a.id AND q.withdrawn = 0
  JOIN source s ON s.id = a.source_id JOIN person p ON p.id = a.author_id ${KIND_JOIN}
  WHERE ${only} AND ${sees('a')} ORDER BY folded(s.title), s.id, a.start, a.created_at`;
export const ON_SOURCE = questions('a.source_id = @source');
export const IN_CLASS = questions(
  'a.id IN (SELECT ac.annotation_id FROM annotation_class ac WHERE ac.class_id = @class)',
);
export const ONE_QUESTION = questions('a.id = @id');
export function questionRows(db: Db, me: PersonId, which: Which): QuestionRow[] {
  if ('sourceId' in which) return db.all(ON_SOURCE, { me, source: which.sourceId });
  if ('classId' in which) return db.all(IN_CLASS, { me, class: which.classId });
  return db.all(ONE_QUESTION, { me, id: which.annotationId });
}

/** A class that is asked a question, as one of its members stands to it. */
export interface AskedRow {
  readonly annotationId: AnnotationId;
  readonly classId: ClassId;
  readonly teaches: number;
  readonly archived: number;
  readonly shownAt: string | null;
  readonly dueAt: string | null;
}
/** Of the classes of somebody, in which it is for them; with when the reading is due for them. */
const ASKED = `
  SELECT ac.annotation_id, ac.class_id, w.teaches, c.archived_at IS NOT NULL AS archived, qs.shown_at,
    coalesce(e.due_at, g.due_at) AS due_at
  FROM json_each(@ids) j
  JOIN annotation a ON a.id = j.value
  JOIN annotation_class ac ON ac.annotation_id = a.id
  JOIN class c ON c.id = ac.class_id
  JOIN membership m ON m.class_id = ac.class_id AND m.person_id = @me AND ${isShownTo('m', 'ac')}
  JOIN class_reach w ON w.person_id = @me AND w.class_id = ac.class_id AND w.source_id = a.source_id
  LEFT JOIN question_shown qs ON qs.annotation_id = a.id AND qs.class_id = ac.class_id
  LEFT JOIN assignment g ON g.class_id = ac.class_id AND g.source_id = a.source_id AND ${isSetFor('w', 'g')}
  LEFT JOIN extension e ON e.class_id = g.class_id AND e.source_id = g.source_id AND e.person_id = @me
    AND e.due_at > g.due_at`;
const bound = (annotationIds: readonly AnnotationId[]) => ({ ids: JSON.stringify(annotationIds) });
export const askedIn = (db: Db, me: PersonId, annotationIds: readonly AnnotationId[]): AskedRow[] =>
  db.all(ASKED, { me, ...bound(annotationIds) });

/** What somebody answered, as it is stored. */
export interface ResponseRow {
  readonly annotationId: AnnotationId;
  readonly personId: PersonId;
  /** JSON. */
  readonly choices: string;
  readonly number: number | null;
  readonly words: string;
  readonly givenAt: string;
}
const MINE = `
  SELECT r.* FROM json_each(@ids) j
  JOIN question_response r ON r.annotation_id = j.value AND r.person_id = @me`;
export const ownResponses = (db: Db, me: PersonId, annotationIds: readonly AnnotationId[]): ResponseRow[] =>
  db.all(MINE, { me, ...bound(annotationIds) });

/** A student who is asked, and what they answered. */
export interface StudentRow extends Omit<ResponseRow, 'choices' | 'words' | 'givenAt'> {
  readonly classId: ClassId;
  readonly name: string;
  readonly choices: string | null;
  readonly words: string | null;
  readonly givenAt: string | null;
  readonly dueAt: string | null;
}
/** Of the classes that are asked, each student it is for, by name: who left is not counted, whatever they answered. */
const STUDENTS = `
  SELECT ac.annotation_id, ac.class_id, p.id AS person_id, p.name, r.choices, r.number, r.words, r.given_at,
    coalesce(e.due_at, g.due_at) AS due_at
  FROM json_each(@ids) j
  JOIN annotation a ON a.id = j.value
  JOIN annotation_class ac ON ac.annotation_id = a.id AND (@class IS NULL OR ac.class_id = @class)
  JOIN membership m ON m.class_id = ac.class_id AND m.role = 'student' AND ${isShownTo('m', 'ac')}
  JOIN person p ON p.id = m.person_id
  LEFT JOIN question_response r ON r.annotation_id = a.id AND r.person_id = m.person_id
  LEFT JOIN assignment g ON g.class_id = ac.class_id AND g.source_id = a.source_id AND ${isSetForGroup('m', 'g')}
  LEFT JOIN extension e ON e.class_id = g.class_id AND e.source_id = g.source_id AND e.person_id = m.person_id
    AND e.due_at > g.due_at
  ORDER BY folded(p.name), p.id`;
export const studentsAsked = (
  db: Db,
  annotationIds: readonly AnnotationId[],
  classId: ClassId | null = null,
): StudentRow[] => db.all(STUDENTS, { class: classId, ...bound(annotationIds) });

const STORED = `
  SELECT q.version, q.form, q.choices, q.withdrawn,
    EXISTS (SELECT 1 FROM question_response r WHERE r.annotation_id = q.annotation_id) AS answered
  FROM question q WHERE q.annotation_id = ?`;
export interface StoredQuestion {
  readonly version: number;
  readonly form: QuestionForm;
  readonly choices: string;
  readonly withdrawn: number;
  readonly answered: number;
}
export const storedQuestion = (db: Db, id: AnnotationId): StoredQuestion | undefined =>
  db.get<StoredQuestion>(STORED, id);

const PUT = `
  INSERT INTO question (annotation_id, form, choices, right, number, tolerance, unit, model, answers_shown)
  VALUES (@id, @form, @choices, @right, @number, @tolerance, @unit, @model, @answersShown)
  ON CONFLICT (annotation_id) DO UPDATE SET form = @form, choices = @choices, right = @right, number = @number,
    tolerance = @tolerance, unit = @unit, model = @model, answers_shown = @answersShown, withdrawn = 0,
    version = version + 1`;
export const storeQuestion = (db: Db, id: AnnotationId, put: QuestionPut): void => {
  const { version: _version, choices, right, ...rest } = put;
  db.run(PUT, {
    ...rest,
    id,
    choices: JSON.stringify(choices),
    right: JSON.stringify(right.toSorted((a, b) => a - b)),
  });
};
const WITHDRAW = 'UPDATE question SET withdrawn = 1 WHERE annotation_id = ? AND withdrawn = 0';
export const withdraw = (db: Db, id: AnnotationId): boolean => db.run(WITHDRAW, id) > 0;

const RESPOND = `
  INSERT INTO question_response (annotation_id, person_id, choices, number, words, given_at)
  VALUES (@id, @me, @choices, @number, @words, @now)
  ON CONFLICT (annotation_id, person_id) DO UPDATE SET choices = @choices, number = @number, words = @words,
    given_at = @now`;
export const storeResponse = (
  db: Db,
  { id, me, now }: { readonly id: AnnotationId; readonly me: PersonId; readonly now: string },
  { choices, number, words }: Given,
): number => db.run(RESPOND, { id, me, now, number, words, choices: JSON.stringify(choices) });

const SHOW = `
  INSERT INTO question_shown (annotation_id, class_id, shown_at) VALUES (@id, @class, @now) ON CONFLICT DO NOTHING`;
const HIDE = 'DELETE FROM question_shown WHERE annotation_id = @id AND class_id = @class';
/** False where it was so already. */
export const setAnswersShown = (
  db: Db,
  { id, classId }: { readonly id: AnnotationId; readonly classId: ClassId },
  now: string | null,
): boolean => (now === null ? db.run(HIDE, { id, class: classId }) : db.run(SHOW, { id, class: classId, now })) > 0;

/** Who teaches a class that is asked: the answers are counted for them. */
const TEACHERS = `
  SELECT DISTINCT m.person_id FROM annotation_class ac
  JOIN membership m ON m.class_id = ac.class_id AND m.role <> 'student' WHERE ac.annotation_id = ?`;
export const teachersAsking = (db: Db, id: AnnotationId): PersonId[] =>
  db.all<{ personId: PersonId }>(TEACHERS, id).map((row) => row.personId);

/**
 * Of a class, by source and student: how many questions they are asked, and how many of these they answered. Whose
 * answers were shown before somebody gave one is asked of them no more: it could not be done.
 */
const BY_STUDENT = `
  SELECT a.source_id, m.person_id, count(*) AS asked, count(r.person_id) AS answered
  FROM annotation_class ac
  JOIN question q ON q.annotation_id = ac.annotation_id AND q.withdrawn = 0
  JOIN annotation a ON a.id = ac.annotation_id AND a.deleted_at IS NULL
  JOIN membership m ON m.class_id = ac.class_id AND m.role = 'student' AND ${isShownTo('m', 'ac')}
  LEFT JOIN question_response r ON r.annotation_id = a.id AND r.person_id = m.person_id
  WHERE ac.class_id = @class AND (@source IS NULL OR a.source_id = @source)
    AND (@person IS NULL OR m.person_id = @person)
    AND (r.person_id IS NOT NULL OR NOT EXISTS (
      SELECT 1 FROM question_shown x WHERE x.annotation_id = a.id AND x.class_id = ac.class_id))
  GROUP BY a.source_id, m.person_id`;
export interface AskedCount {
  readonly sourceId: SourceId;
  readonly personId: PersonId;
  readonly asked: number;
  readonly answered: number;
}
export const questionsBy = (
  db: Db,
  asked: { readonly class: ClassId; readonly source: SourceId | null; readonly person: PersonId | null },
): AskedCount[] => db.all(BY_STUDENT, asked);

/** What waits to be answered: asked of me, and open still, in a class that is not archived. */
export const LEFT = `
  SELECT c.id AS class_id, c.name AS class_name, c.tint, s.id AS source_id, s.title, s.language, count(*) AS count,
    a.id AS first_id, min(a.start) AS start
  FROM membership m
  JOIN class c ON c.id = m.class_id AND c.archived_at IS NULL
  JOIN annotation_class ac ON ac.class_id = m.class_id AND ${isShownTo('m', 'ac')}
  JOIN question q ON q.annotation_id = ac.annotation_id AND q.withdrawn = 0
  JOIN annotation a ON a.id = ac.annotation_id AND a.deleted_at IS NULL
  JOIN class_reach w ON w.person_id = @me AND w.class_id = m.class_id AND w.source_id = a.source_id
  JOIN source s ON s.id = a.source_id
  LEFT JOIN assignment g ON g.class_id = m.class_id AND g.source_id = a.source_id AND ${isSetFor('w', 'g')}
  LEFT JOIN extension e ON e.class_id = g.class_id AND e.source_id = g.source_id AND e.person_id = @me
    AND e.due_at > g.due_at
  WHERE m.person_id = @me AND m.role = 'student'
    AND NOT (q.answers_shown = 'after_due' AND coalesce(e.due_at, g.due_at, @now) < @now)
    AND NOT EXISTS (SELECT 1 FROM question_response r WHERE r.annotation_id = a.id AND r.person_id = @me)
    AND NOT EXISTS (SELECT 1 FROM question_shown x WHERE x.annotation_id = a.id AND x.class_id = m.class_id)
  GROUP BY c.id, s.id ORDER BY folded(c.name), c.id, folded(s.title), s.id`;
interface LeftRow {
  readonly classId: ClassId;
  readonly className: string;
  readonly tint: ClassLabel['tint'];
  readonly sourceId: SourceId;
  readonly title: string;
  readonly language: string;
  readonly count: number;
  readonly firstId: AnnotationId;
}
export const questionsLeft = (db: Db, me: PersonId, now: string): QuestionsLeft[] =>
  db.all<LeftRow>(LEFT, { me, now }).map(({ classId, className, tint, sourceId, title, language, count, firstId }) => ({
    class: { id: classId, name: className, tint },
    source: { id: sourceId, title, language },
    firstId,
    count,
  }));
