import type { AssignmentPut } from '@avrelle/core/wire';
import type { SourceKey } from './marks';

type At = readonly [daysAhead: number, hour: number];

/** What Dr Aldous has set for his courses. Times are days ahead, and an hour of that day. */
export const ASSIGNMENTS: readonly (Partial<Omit<AssignmentPut, 'opensAt' | 'dueAt'>> & {
  readonly source: SourceKey;
  readonly class: 'A' | 'B';
  /** Both read it together. */
  readonly togetherWith?: 'A';
  readonly opens?: At;
  readonly due: At;
})[] = [
  {
    source: 'marsh',
    class: 'B',
    due: [1, 16],
    marks: [
      { kind: 'claim', count: 1 },
      { kind: 'evidence', count: 1 },
      { kind: null, count: 2 },
    ],
    answers: 1,
    questions: true,
    instructions:
      'Read it to the end, then mark **one claim** and the **evidence** it rests on.\n\nWhich of the two numbers in the second section is less certain? Answer somebody who thinks otherwise.',
  },
  {
    source: 'report',
    class: 'B',
    due: [3, 9],
    marks: [{ kind: 'doubt', count: 1 }],
    othersSeen: 'after_own',
    instructions: 'Choose a number in table 2 that you would not build a dyke on, and say why.',
  },
  {
    source: 'walk',
    class: 'B',
    due: [3, 9],
    marks: [{ kind: null, count: 1 }],
    inOrder: true,
    instructions: 'Two minutes. Note the moment where the two stories of the bank part.',
  },
  {
    source: 'light',
    class: 'B',
    togetherWith: 'A',
    opens: [2, 8],
    due: [6, 16],
    marks: [{ kind: 'question', count: 3 }],
  },
  { source: 'pegs', class: 'B', due: [-7, 16], marks: [{ kind: null, count: 3 }] },
  { source: 'marsh', class: 'A', due: [2, 12], marks: [{ kind: null, count: 3 }], answers: 0 },
  { source: 'report', class: 'A', due: [5, 12], marks: [{ kind: 'doubt', count: 1 }], othersSeen: 'after_release' },
];

/** How much of what is set each student has read, as shares of the text from its beginning; who is not named reads all. */
export const READ: Readonly<Record<string, readonly (readonly [SourceKey, number])[]>> = {
  jory: [['marsh', 0.31]],
  wim: [],
  esme: [['marsh', 0.7]],
  cal: [
    ['marsh', 1],
    ['report', 0.2],
  ],
  sten: [
    ['marsh', 0.82],
    ['pegs', 1],
  ],
  tomas: [
    ['marsh', 0.7],
    ['pegs', 1],
    ['report', 0.4],
  ],
  ines: [],
};
/** What the others have read. */
export const READ_BY_OTHERS: readonly (readonly [SourceKey, number])[] = [
  ['marsh', 1],
  ['pegs', 1],
  ['report', 0.55],
];
