import { areShown, countsOf, isRight, type AnswerKey, type Given } from '@avrelle/core/class';
import type {
  AnnotationId,
  AskedClass,
  ClassId,
  PersonId,
  Question,
  QuestionResponse,
  QuestionResults,
  StudentResponse,
} from '@avrelle/core/wire';
import { classNoteOf } from '../annotations/class-note';
import type { Db } from '../db/database';
import {
  askedIn,
  ownResponses,
  questionRows,
  studentsAsked,
  type AskedRow,
  type QuestionRow,
  type ResponseRow,
  type StudentRow,
  type Which,
} from './queries';

type Answered = Pick<ResponseRow, 'choices' | 'number' | 'words' | 'givenAt'>;

const choicesOf = ({ choices }: QuestionRow): readonly string[] => JSON.parse(choices) as string[];
const keyOf = ({ right, number, tolerance }: QuestionRow): AnswerKey => ({
  right: JSON.parse(right) as number[],
  number,
  tolerance,
});
const givenOf = ({ choices, number, words }: Pick<Answered, 'choices' | 'number' | 'words'>): Given => ({
  choices: JSON.parse(choices) as number[],
  number,
  words,
});
const hasAnswered = (row: StudentRow): row is StudentRow & Answered => row.givenAt !== null;

/** What of a question was asked of the database for all of them at once. */
interface Around {
  readonly me: PersonId;
  readonly now: string;
  readonly asked: readonly AskedRow[];
  readonly own: ResponseRow | undefined;
  readonly students: readonly StudentRow[];
}

/** Questions as somebody sees them: nothing of what is right, nor of others, before its time. */
export function questionsFor(db: Db, me: PersonId, which: Which, now: string): Question[] {
  const rows = questionRows(db, me, which);
  const ids = rows.map(({ id }) => id);
  const asked = byQuestion(askedIn(db, me, ids));
  const own = byQuestion(ownResponses(db, me, ids));
  // Whom nothing is shown is told of nobody.
  const seeing = rows.filter((row) =>
    (asked.get(row.id) ?? []).some((one) => seesResults(row, one, own.has(row.id), now)),
  );
  const students = byQuestion(
    studentsAsked(
      db,
      seeing.map(({ id }) => id),
    ),
  );
  return rows.map((row) =>
    asSeen(row, {
      me,
      now,
      asked: asked.get(row.id) ?? [],
      own: own.get(row.id)?.[0],
      students: students.get(row.id) ?? [],
    }),
  );
}

function byQuestion<T extends { readonly annotationId: AnnotationId }>(
  rows: readonly T[],
): ReadonlyMap<AnnotationId, T[]> {
  const found = new Map<AnnotationId, T[]>();
  for (const row of rows) {
    const some = found.get(row.annotationId);
    if (some) some.push(row);
    else found.set(row.annotationId, [row]);
  }
  return found;
}

const isShownIn = (
  { answersShown }: QuestionRow,
  { shownAt, dueAt }: AskedRow,
  answered: boolean,
  now: string,
): boolean => areShown({ answersShown, shownAt, dueAt, hasAnswered: answered }, now);
const seesResults = (row: QuestionRow, asked: AskedRow, answered: boolean, now: string): boolean =>
  asked.teaches === 1 || isShownIn(row, asked, answered, now);

function asSeen(row: QuestionRow, { me, now, asked, own, students }: Around): Question {
  const key = keyOf(row);
  const isMine = row.authorId === me;
  const mine = asked.filter(({ teaches }) => teaches === 0);
  const isShown = mine.some((one) => isShownIn(row, one, own !== undefined, now));
  const knowsKey = isMine || isShown || mine.length < asked.length;
  return {
    ...classNoteOf(row),
    form: row.form,
    choices: choicesOf(row),
    unit: row.unit,
    answersShown: row.answersShown,
    version: row.version,
    isMine,
    isForMe: mine.length > 0,
    isOpen: !isShown && mine.some(({ archived }) => archived === 0),
    response: own ? responseOf(row, own, knowsKey) : null,
    key: knowsKey ? { ...key, model: row.model } : null,
    classes: asked.map((one): AskedClass => ({
      id: one.classId,
      shownAt: one.shownAt,
      dueAt: one.dueAt,
      results: seesResults(row, one, own !== undefined, now)
        ? resultsOf(
            row,
            students.filter(({ classId }) => classId === one.classId),
          )
        : null,
    })),
  };
}

function responseOf(row: QuestionRow, answered: Answered, knowsKey: boolean): QuestionResponse {
  const given = givenOf(answered);
  return { ...given, at: answered.givenAt, isRight: knowsKey ? isRight(row.form, keyOf(row), given) : null };
}

function resultsOf(row: QuestionRow, students: readonly StudentRow[]): QuestionResults {
  const answers = students.filter(hasAnswered).map(givenOf);
  const words = answers.map((given) => given.words).filter(Boolean);
  return {
    ...countsOf({ form: row.form, choices: choicesOf(row) }, keyOf(row), answers),
    students: students.length,
    words: words.sort((a, b) => a.localeCompare(b)),
  };
}

/** Of some questions, each student of a class who is asked, with what they answered; for who teaches there. */
export function responsesIn(
  db: Db,
  rows: readonly QuestionRow[],
  classId: ClassId,
): (id: AnnotationId) => StudentResponse[] {
  const questions = new Map(rows.map((row) => [row.id, row]));
  const students = byQuestion(studentsAsked(db, [...questions.keys()], classId));
  return (id) =>
    (students.get(id) ?? []).map((student) => ({
      id: student.personId,
      name: student.name,
      response: hasAnswered(student) ? responseOf(questions.get(id)!, student, true) : null,
      late: student.givenAt !== null && student.dueAt !== null && student.givenAt > student.dueAt,
    }));
}
