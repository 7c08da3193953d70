import type { ClassId, PersonId, QuestionResponse } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { csvOf } from '../export/csv';
import { questionRows, type QuestionRow } from './queries';
import { responsesIn } from './questions';

const FIELDS = ['reading', 'question', 'student', 'answer', 'right', 'answered', 'late'];

/** What each student of a class answered to each question, as CSV. */
export function answersTable(db: Db, me: PersonId, classId: ClassId): string {
  const questions = questionRows(db, me, { classId });
  const responses = responsesIn(db, questions, classId);
  const rows = questions.flatMap((question) =>
    responses(question.id).map(({ name, response, late }) => [
      question.title,
      question.note || question.quote,
      name,
      response ? answerIn(question, response) : '',
      yesOrNo(response?.isRight),
      response?.at ?? '',
      response ? yesOrNo(late) : '',
    ]),
  );
  return csvOf(FIELDS, rows);
}

function yesOrNo(is: boolean | null | undefined): string {
  if (is == null) return '';
  return is ? 'yes' : 'no';
}

function answerIn(
  { choices, form }: QuestionRow,
  { words, number, choices: taken }: QuestionResponse,
): string | number {
  if (form === 'number') return number ?? '';
  if (form === 'open') return words;
  const offered = JSON.parse(choices) as readonly string[];
  return taken.map((at) => offered[at] ?? '').join('; ');
}
