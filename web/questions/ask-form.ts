import { array, boolean, number, object, string, type InferType } from 'yup';
import { ANSWERS_SHOWN, QUESTION_FORMS } from '@avrelle/core/class';
import { MOST_CHOICES, type Question, type QuestionPut } from '@avrelle/core/wire';

const hasChoices = (form: unknown): boolean => form === 'one' || form === 'several';
/** An empty field is no number. */
const typedNumber = () =>
  number()
    .transform((value: number) => (Number.isNaN(value) ? null : value))
    .nullable()
    .default(null);

interface Choice {
  words: string;
  isRight: boolean;
}
const written = (choices: readonly Choice[]): readonly Choice[] => choices.filter(({ words }) => words.trim() !== '');

/** What is typed where a class is asked; lines without words are no choices. */
export const askSchema = object({
  form: string().oneOf(QUESTION_FORMS).required(),
  choices: array(object({ words: string().trim().max(300).defined(), isRight: boolean().required() }).required())
    .required()
    .max(MOST_CHOICES)
    .test('some', 'Give two choices at least.', (choices, { parent }) => {
      const { form } = parent as { form: string };
      return !hasChoices(form) || written(choices ?? []).length >= 2;
    })
    .test('once', 'Each choice stands there once.', (choices) => {
      const words = written(choices ?? []).map((choice) => choice.words.trim());
      return new Set(words).size === words.length;
    })
    .test('one', 'Only one choice can be taken: mark one as right, or none.', (choices, { parent }) => {
      const { form } = parent as { form: string };
      return form !== 'one' || written(choices ?? []).filter((choice) => choice.isRight).length <= 1;
    }),
  number: typedNumber(),
  tolerance: typedNumber().min(0, 'Write 0 or more.'),
  unit: string().trim().max(20, 'At most 20 characters.').defined(),
  model: string().trim().max(20_000, 'A model answer may have 20,000 characters.').defined(),
  answersShown: string().oneOf(ANSWERS_SHOWN).required(),
});
export type AskValues = InferType<typeof askSchema>;

export const EMPTY_CHOICE: Choice = { words: '', isRight: false };
const NEW: AskValues = {
  form: 'open',
  choices: [EMPTY_CHOICE, EMPTY_CHOICE, EMPTY_CHOICE],
  number: null,
  tolerance: null,
  unit: '',
  model: '',
  answersShown: 'after_due',
};

/** As the form begins: with what is asked, or with nothing. */
export function valuesOf(question: Question | undefined): AskValues {
  if (!question) return NEW;
  const { form, choices, key, unit, answersShown } = question;
  return {
    form,
    choices:
      choices.length > 0 ? choices.map((words, at) => ({ words, isRight: !!key?.right.includes(at) })) : NEW.choices,
    number: key?.number ?? null,
    tolerance: key?.tolerance ?? null,
    unit,
    model: key?.model ?? '',
    answersShown,
  };
}

export function putOf({ choices, tolerance, ...values }: AskValues, version: number | undefined): QuestionPut {
  const offered = hasChoices(values.form) ? written(choices) : [];
  return {
    ...(version === undefined ? {} : { version }),
    ...values,
    tolerance: tolerance ?? 0,
    choices: offered.map(({ words }) => words.trim()),
    right: offered.flatMap(({ isRight }, at) => (isRight ? [at] : [])),
  };
}
