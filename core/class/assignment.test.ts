import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  contributionOf,
  expectationWords,
  gaveOwn,
  hasDone,
  isDone,
  missing,
  NOTHING_DONE,
  type Contribution,
  type Expectation,
} from './assignment';

const KINDS = ['claim', 'evidence', 'question'];
const expectations = (): fc.Arbitrary<Expectation> =>
  fc.record({
    marks: fc.uniqueArray(
      fc.record({ kind: fc.option(fc.constantFrom(...KINDS)), count: fc.integer({ min: 1, max: 4 }) }),
      { selector: (m) => m.kind },
    ),
    answers: fc.integer({ min: 0, max: 3 }),
    questions: fc.integer({ min: 0, max: 2 }),
  });
const contributions = (): fc.Arbitrary<Contribution> =>
  fc.record({
    marks: fc.dictionary(fc.constantFrom(...KINDS), fc.integer({ min: 1, max: 5 })),
    answers: fc.integer({ min: 0, max: 4 }),
    questions: fc.integer({ min: 0, max: 3 }),
  });
const total = ({ marks, answers, questions }: Expectation): number =>
  marks.reduce((sum, m) => sum + m.count, answers + questions);

describe('what is still to be done', () => {
  const expected: Expectation = {
    marks: [
      { kind: 'claim', count: 2 },
      { kind: null, count: 1 },
    ],
    answers: 1,
    questions: 0,
  };
  test('each kind by itself; what is over counts as any', () => {
    expect(missing(expected, { marks: { claim: 1, term: 3 }, answers: 0, questions: 0 })).toEqual({
      marks: [{ kind: 'claim', count: 1 }],
      answers: 1,
      questions: 0,
    });
    expect(missing(expected, { marks: { claim: 2 }, answers: 5, questions: 0 })).toEqual({
      marks: [{ kind: null, count: 1 }],
      answers: 0,
      questions: 0,
    });
    const all = { marks: { claim: 3 }, answers: 1, questions: 1 };
    expect(isDone(missing(expected, all))).toBe(true);
    expect(missing({ ...expected, questions: 3 }, all)).toEqual({ marks: [], answers: 0, questions: 2 });
  });

  test('nothing done, all is missing; doing one thing more takes off one at most, and never adds', () => {
    fc.assert(
      fc.property(expectations(), contributions(), fc.constantFrom(...KINDS), (asked, done, kind) => {
        expect(total(missing(asked, NOTHING_DONE))).toBe(total(asked));
        const before = total(missing(asked, done));
        const more = { ...done, marks: { ...done.marks, [kind]: (done.marks[kind] ?? 0) + 1 } };
        const after = total(missing(asked, more));
        expect(before - after === 0 || before - after === 1).toBe(true);
        expect(total(missing(asked, { ...done, answers: done.answers + 1 }))).toBeLessThanOrEqual(before);
      }),
    );
  });

  test('who gave all the marks gave their own, whatever answers are missing; where none are asked for, one does', () => {
    expect(gaveOwn(expected.marks, { marks: { claim: 3 }, answers: 0, questions: 0 })).toBe(true);
    expect(gaveOwn(expected.marks, { marks: { claim: 2 }, answers: 9, questions: 0 })).toBe(false);
    expect(gaveOwn([], NOTHING_DONE)).toBe(false);
    expect(gaveOwn([], { marks: { doubt: 1 }, answers: 0, questions: 0 })).toBe(true);
  });
});

test('what is only to be read is done when it is read; else reading does not count', () => {
  const reading = { marks: [], answers: 0, questions: 0 };
  expect([hasDone(reading, NOTHING_DONE, 0.96), hasDone(reading, NOTHING_DONE, 0.97)]).toEqual([false, true]);
  const asked = { marks: [], answers: 1, questions: 0 };
  expect([hasDone(asked, NOTHING_DONE, 1), hasDone(asked, { marks: {}, answers: 1, questions: 0 }, 0)]).toEqual([
    false,
    true,
  ]);
});

test('of annotations only what is one’s own, for the class and there counts; answers only to others', () => {
  const by = (author: string, id: string, more: object = {}) => ({
    id,
    author: { id: author },
    classIds: ['b'],
    rootId: null as string | null,
    kind: { code: 'claim' },
    ...more,
  });
  const written = [
    by('ines', '1'),
    by('ines', '2', { kind: { code: 'term' } }),
    by('ines', '3', { classIds: [] }),
    by('ines', '4', { deleted: true as const }),
    by('tomas', '5'),
    by('ines', '6', { rootId: '5' }),
    by('ines', '7', { rootId: '1' }),
    by('tomas', '8', { rootId: '1' }),
  ];
  expect(contributionOf(written, 'ines', 'b')).toEqual({ marks: { claim: 1, term: 1 }, answers: 1 });
  expect(contributionOf(written, 'ines', 'a')).toEqual({ marks: {}, answers: 0 });
});

test('what is asked for in words', () => {
  const nameOf = (kind: string): string => ({ claim: 'Claim', evidence: 'Evidence', gist: 'Gist of it' })[kind] ?? kind;
  const marks = [
    { kind: 'claim', count: 2 },
    { kind: 'evidence', count: 2 },
    { kind: null, count: 1 },
  ];
  expect(expectationWords({ marks, answers: 1, questions: 0 }, nameOf)).toBe(
    'two claims, two pieces of evidence, one mark, one answer',
  );
  expect(expectationWords({ marks: [{ kind: 'evidence', count: 1 }], answers: 20, questions: 0 }, nameOf)).toBe(
    'one piece of evidence, 20 answers',
  );
  expect(expectationWords({ marks: [], answers: 0, questions: 0 }, nameOf)).toBe('');
  expect(expectationWords({ marks: [], answers: 0, questions: 1 }, nameOf)).toBe('one question to answer');
});
