import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { movedStep, textOf, withoutStep, withStep, withStepAt, withWords, writtenIn, type Written } from './steps';

const of = (...ids: readonly string[]): Written => ({
  name: 'From numbers',
  steps: ids.map((annotationId) => ({ annotationId, words: `of ${annotationId}` })),
});
const ids = ({ steps }: Written): readonly string[] => steps.map(({ annotationId }) => annotationId);

test('a note is one step, however often it is added; its words go with it', () => {
  expect(ids(withStep(withStep(of('a'), 'b'), 'a'))).toEqual(['a', 'b']);
  expect(withWords(of('a', 'b'), 'b', 'Ask.').steps.map(({ words }) => words)).toEqual(['of a', 'Ask.']);
  expect(movedStep(of('a', 'b', 'c'), 'a', 'c').steps.map(({ words }) => words)).toEqual(['of b', 'of c', 'of a']);
  expect(ids(movedStep(of('a', 'b', 'c'), 'c', 'a'))).toEqual(['c', 'a', 'b']);
  expect(ids(movedStep(of('a'), 'a', 'gone'))).toEqual(['a']);
});

test('taken out and put back, all stands as it did, whatever was moved', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.string({ minLength: 1 }), { minLength: 2 }), fc.nat(), fc.nat(), (all, m, n) => {
      const [from, at] = [all[m % all.length]!, n % all.length];
      const moved = movedStep(of(...all), from, all[at]!);
      expect([...ids(moved)].sort()).toEqual([...all].sort());
      expect(ids(moved)[at]).toBe(from);
      const where = ids(moved).indexOf(from);
      const back = withStepAt(withoutStep(moved, from), moved.steps[where]!, where);
      expect(back).toEqual(moved);
      expect(writtenIn(textOf(back))).toEqual(back);
    }),
  );
});
