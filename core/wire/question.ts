/** Questions that a class is asked, each pinned to a note that asks it; and what was answered. */
import { array, number, object, string, type InferType } from 'yup';
import {
  ANSWERS_SHOWN,
  QUESTION_FORMS,
  type AnswerKey,
  type AnswersShown,
  type Counts,
  type QuestionForm,
} from '../class/question';
import { LONGEST_NOTE } from './annotation';
import type { ClassNote } from './class-note';
import type { AnnotationId, ClassId, PersonId } from './ids';
import type { ClassLabel } from './source';

export const MOST_CHOICES = 12;
const LONGEST_CHOICE = 300;
const LONGEST_UNIT = 20;
const FEWEST_CHOICES = 2;

/** Places in a list of choices. */
const places = () =>
  array(
    number()
      .integer()
      .min(0)
      .max(MOST_CHOICES - 1)
      .required(),
  )
    .default([])
    .test('once', 'Each choice is named once.', (some) => new Set(some).size === (some ?? []).length);
const finite = () =>
  number()
    .typeError('Write a number.')
    .nullable()
    .default(null)
    .test('finite', 'Write a number.', (value) => value == null || Number.isFinite(value));
const hasChoices = (form: unknown): boolean => form === 'one' || form === 'several';

export const questionPutSchema = object({
  /** The version that was seen; absent for a new one. */
  version: number().integer().min(1),
  form: string().oneOf(QUESTION_FORMS).required(),
  /** In the order in which they stand; none but where something is to be chosen. */
  choices: array(string().trim().required('Write what can be chosen.').max(LONGEST_CHOICE))
    .max(MOST_CHOICES, `At most ${MOST_CHOICES} choices.`)
    .default([])
    .test('some', 'Give two choices at least.', (choices, { parent }) =>
      hasChoices((parent as { form?: unknown }).form) ? (choices ?? []).length >= FEWEST_CHOICES : true,
    )
    .test('once', 'Each choice stands there once.', (choices) => new Set(choices).size === (choices ?? []).length),
  /** Places of the right choices. */
  right: places()
    .test('one', 'Only one choice can be taken: mark one as right, or none.', (right, { parent }) =>
      (parent as { form?: unknown }).form === 'one' ? (right ?? []).length <= 1 : true,
    )
    .test('there', 'What is right has to be one of the choices.', (right, { parent }) => {
      const { choices = [] } = parent as { choices?: readonly string[] };
      return (right ?? []).every((at) => at < choices.length);
    }),
  number: finite(),
  tolerance: number().typeError('Write a number.').min(0, 'Write 0 or more.').default(0),
  unit: string().trim().max(LONGEST_UNIT, `At most ${LONGEST_UNIT} characters.`).default(''),
  /** A model answer, in Markdown. */
  model: string()
    .trim()
    .max(LONGEST_NOTE, `A model answer may have ${LONGEST_NOTE.toLocaleString('en')} characters.`)
    .default(''),
  answersShown: string().oneOf(ANSWERS_SHOWN).default('after_due'),
}).noUnknown();
export type QuestionPut = InferType<typeof questionPutSchema>;

export const responsePutSchema = object({
  choices: places(),
  number: finite(),
  words: string().trim().max(LONGEST_NOTE, 'An answer may have 20,000 characters.').default(''),
}).noUnknown();
export type ResponsePut = InferType<typeof responsePutSchema>;

/** What one person answered. */
export interface QuestionResponse {
  readonly choices: readonly number[];
  readonly number: number | null;
  readonly words: string;
  readonly at: string;
  /** Null where nothing is right, or I am not to know yet. */
  readonly isRight: boolean | null;
}

/** How one class answered. */
export interface QuestionResults extends Counts {
  /** How many are asked. */
  readonly students: number;
  /** What was answered in words, without names, in the order of the alphabet. */
  readonly words: readonly string[];
}

/** A class that is asked, as one of its members sees it. */
export interface AskedClass {
  readonly id: ClassId;
  /** Since when a teacher shows the answers there. */
  readonly shownAt: string | null;
  /** When the reading is due there, for me. */
  readonly dueAt: string | null;
  /** Null as long as I am not to see them. */
  readonly results: QuestionResults | null;
}

export interface Question extends ClassNote {
  readonly form: QuestionForm;
  readonly choices: readonly string[];
  readonly unit: string;
  readonly answersShown: AnswersShown;
  readonly version: number;
  /** I asked it: I may change it. */
  readonly isMine: boolean;
  /** I am one of those who are asked. */
  readonly isForMe: boolean;
  /** I may answer now, or change my answer. */
  readonly isOpen: boolean;
  readonly response: QuestionResponse | null;
  /** What is right and the model answer; null as long as I am not to see them. */
  readonly key: (AnswerKey & { readonly model: string }) | null;
  /** Of those that are asked, the classes that I am in. */
  readonly classes: readonly AskedClass[];
}

/** What each student of a class answered, for who teaches it. */
export interface StudentResponse {
  readonly id: PersonId;
  readonly name: string;
  readonly response: QuestionResponse | null;
  /** Answered after it was due. */
  readonly late: boolean;
}

/** How many questions on a source a class waits for me to answer. */
export interface QuestionsLeft {
  readonly class: ClassLabel;
  readonly source: ClassNote['source'];
  /** The first of them in the text. */
  readonly firstId: AnnotationId;
  readonly count: number;
}
