import { isRight, type AnswerKey, type AnswersShown, type QuestionForm } from '@avrelle/core/class';
import type { AskedClass, Question, QuestionResponse } from '@avrelle/core/wire';
import { dueAt } from '../ui/when';

/** How a question is answered, as it is chosen. */
export const FORM_WORDS: Readonly<Record<QuestionForm, string>> = {
  open: 'in their own words',
  one: 'by one choice',
  several: 'by one or more choices',
  number: 'with a number',
};

/** When answers are shown, as it is chosen. */
export const SHOWN_WORDS: Readonly<Record<AnswersShown, string>> = {
  after_own: 'after their own',
  after_due: 'when the reading is due',
  by_hand: 'when you show them',
};

/** "21 mm", "21 ± 1 mm". */
export const numberWords = (value: number, unit: string, tolerance = 0): string =>
  [value.toLocaleString('en-GB', { maximumFractionDigits: 10 }), tolerance > 0 ? `± ${tolerance}` : '', unit]
    .filter(Boolean)
    .join('\u00a0');

/** An answer as it reads. */
export function answerWords(
  { form, choices, unit }: Question,
  { choices: taken, number, words }: QuestionResponse,
): string {
  if (form === 'open') return words;
  return form === 'number' ? numberWords(number ?? 0, unit) : taken.map((at) => choices[at]).join(' · ');
}

/** For one who answers: until when nothing is shown, and that the first answer may be the last. */
export function waitWords({ answersShown, classes }: Question): string {
  if (answersShown === 'after_own') return 'You can answer once: then you see how the others answered.';
  const due = classes.map((c) => c.dueAt).find((at) => at !== null);
  if (answersShown === 'after_due' && due) return `You can change it until the answers are shown, ${dueAt(due)}.`;
  return 'You can change it until a teacher shows the answers.';
}

/** For who teaches: since when, or from when on, a class sees the answers. */
export function shownWords({ answersShown }: Question, { shownAt, dueAt: due }: AskedClass): string {
  if (shownAt) return 'The class sees the answers.';
  if (answersShown === 'after_own') return 'Each student sees the answers after their own.';
  if (answersShown === 'by_hand') return 'The class does not see the answers yet.';
  if (due === null) return 'No due date is set: the class sees the answers when you show them.';
  const isOver = due <= new Date().toISOString();
  return isOver ? 'The class sees the answers since the reading was due.' : `The class sees the answers ${dueAt(due)}.`;
}

/** Whether one number is right. */
export const isRightNumber = (key: AnswerKey, value: number): boolean =>
  isRight('number', key, { choices: [], words: '', number: value }) === true;
