/** A question that is asked of everybody in a class: open, one or several of some choices, or a number. */
export const QUESTION_FORMS = ['open', 'one', 'several', 'number'] as const;
export type QuestionForm = (typeof QUESTION_FORMS)[number];

/** From when on those who are asked see the model answer and how the others answered. */
export const ANSWERS_SHOWN = ['after_own', 'after_due', 'by_hand'] as const;
export type AnswersShown = (typeof ANSWERS_SHOWN)[number];

/** What is right; a question may have nothing that is. */
export interface AnswerKey {
  /** Places of the right choices, ascending. */
  readonly right: readonly number[];
  readonly number: number | null;
  /** So much more or less than `number` is right, too; 0 or more. */
  readonly tolerance: number;
}

/** What somebody answered: of its form, the others are empty. */
export interface Given {
  /** Places of the choices, ascending. */
  readonly choices: readonly number[];
  readonly number: number | null;
  readonly words: string;
}

/** Numbers as people write them are no binary fractions: 0.1 + 0.2 is within 0.1 of 0.2. */
const RELATIVE_ERROR = 1e-9;

/** Whether an answer is right, all of it; null where nothing is. */
export function isRight(form: QuestionForm, key: AnswerKey, given: Given): boolean | null {
  switch (form) {
    case 'open':
      return null;
    case 'number': {
      if (key.number === null) return null;
      if (given.number === null) return false;
      const slack = RELATIVE_ERROR * Math.max(Math.abs(key.number), Math.abs(key.tolerance));
      return Math.abs(given.number - key.number) <= key.tolerance + slack;
    }
    default:
      if (key.right.length === 0) return null;
      return key.right.length === given.choices.length && key.right.every((at) => given.choices.includes(at));
  }
}

/** When the answers to a question are shown to one of those who are asked. */
export interface Showing {
  readonly answersShown: AnswersShown;
  /** Since when a teacher shows them in the class. */
  readonly shownAt: string | null;
  /** When the reading is due for this person; null where it is not. */
  readonly dueAt: string | null;
  readonly hasAnswered: boolean;
}

/** Whether that time has come. Shown by hand, they are shown to all. */
export function areShown({ answersShown, shownAt, dueAt, hasAnswered }: Showing, now: string): boolean {
  if (shownAt !== null) return true;
  if (answersShown === 'after_own') return hasAnswered;
  return answersShown === 'after_due' && dueAt !== null && dueAt <= now;
}

/** How some answered. */
export interface Counts {
  readonly answered: number;
  /** How many are right; null where nothing is. */
  readonly right: number | null;
  /** How many took each choice; who took several counts for each of them. */
  readonly byChoice: readonly number[];
  /** The numbers that were given, ascending, and how often. */
  readonly numbers: readonly { readonly value: number; readonly count: number }[];
}

/** Counts answers: each person once, and nothing for who did not answer. */
export function countsOf(
  { form, choices }: { readonly form: QuestionForm; readonly choices: readonly unknown[] },
  key: AnswerKey,
  answers: readonly Given[],
): Counts {
  const byChoice = choices.map(() => 0);
  const numbers = new Map<number, number>();
  for (const { choices: taken, number } of answers) {
    for (const at of taken) byChoice[at] = (byChoice[at] ?? 0) + 1;
    if (number !== null) numbers.set(number, (numbers.get(number) ?? 0) + 1);
  }
  const marked = answers.map((given) => isRight(form, key, given));
  const hasKey = isRight(form, key, NOTHING_GIVEN) !== null;
  return {
    answered: answers.length,
    right: hasKey ? marked.filter((right) => right === true).length : null,
    byChoice,
    numbers: [...numbers].sort(([a], [b]) => a - b).map(([value, count]) => ({ value, count })),
  };
}

const NOTHING_GIVEN: Given = { choices: [], number: null, words: '' };
