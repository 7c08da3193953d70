import type { QuestionPut, ResponsePut } from '@avrelle/core/wire';
import { mark, type DemoMark } from './marks/mark';

interface DemoQuestion {
  /** The note that asks. */
  readonly note: DemoMark;
  readonly put: Partial<QuestionPut> & Pick<QuestionPut, 'form'>;
  /** What students answered, by their keys; who is not named has not yet. */
  readonly answers: Readonly<Record<string, Partial<ResponsePut>>>;
}

/** What Dr Aldous asks Field Course B, and what was answered so far. */
export const QUESTIONS: readonly DemoQuestion[] = [
  {
    note: mark(
      'marsh',
      'aldous',
      'question',
      'B',
      3,
      'The difference is the width of a thumb',
      'How far has the marsh fallen behind the sea in these thirty years, by these two numbers?',
    ),
    put: {
      form: 'number',
      number: 21,
      tolerance: 1,
      unit: 'mm',
      model: '117 − 96 = 21 mm. It is **less** than the marsh can gain in a good decade beside a creek.',
      answersShown: 'after_due',
    },
    answers: {
      tomas: { number: 21 },
      priya: { number: 21 },
      kit: { number: 0.7 },
      luz: { number: 21 },
      anneke: { number: 20.5 },
      hollis: { number: 213 },
    },
  },
  {
    note: mark(
      'marsh',
      'aldous',
      'question',
      'B',
      3,
      'The wall had kept the mud in the edge, where it did no good, and out of the water, where it would have done.',
      'Why did the marsh sink behind the stone?',
    ),
    put: {
      form: 'one',
      choices: [
        'The stone was too heavy for the ground.',
        'The mud that would have fed it stayed in the edge.',
        'The river brought less mud than before.',
        'The dredgers took the mud away.',
      ],
      right: [1],
      model: 'A marsh lives by eating its own front: whoever keeps the front takes its food away.',
      answersShown: 'after_own',
    },
    answers: {
      ines: { choices: [1] },
      tomas: { choices: [1] },
      priya: { choices: [3] },
      kit: { choices: [1] },
      luz: { choices: [1] },
      sten: { choices: [2] },
      anneke: { choices: [1] },
      hollis: { choices: [0] },
      greta: { choices: [1] },
    },
  },
  {
    note: mark(
      'marsh',
      'aldous',
      'question',
      'B',
      3,
      'The quantity everybody wants to know, how much longer, depends less on the mud than on ' +
        'what people do behind the wall',
      'What would you measure next, if not more pegs?',
    ),
    put: { form: 'open', answersShown: 'by_hand' },
    answers: {
      luz: { words: 'Who owns which field behind the wall, and what they would take for it.' },
      priya: { words: 'How much of the dredged mud would have settled. The company says nobody knows.' },
      tomas: { words: 'The upper edge: where the first glasswort stands each spring.' },
    },
  },
];
