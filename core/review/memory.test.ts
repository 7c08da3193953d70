import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { answered, chanceOf, newMemory, type CardMemory } from './memory';
import { RATINGS, type CardRating } from './rating';

const BEGIN = '2026-11-01T08:00:00.000Z';
const plain = { wish: 0.9, seed: '' };
const after = (at: string, milliseconds: number): string => new Date(Date.parse(at) + milliseconds).toISOString();
const daysBetween = (from: string, to: string): number => Math.floor((Date.parse(to) - Date.parse(from)) / 86_400_000);

describe('by the published scheduler', () => {
  // The reference implementation in Python prints this row for its default parameters (FSRS 6), fuzz off; from memory.
  test('days between answers are those of its own test', () => {
    const ratings = [3, 3, 3, 3, 3, 3, 1, 1, 3, 3, 3, 3, 3].map((n) => RATINGS[n - 1]!);
    let memory = newMemory(BEGIN);
    const days = ratings.map((rating) => {
      memory = answered(memory, rating, { at: memory.due, ...plain });
      return daysBetween(memory.last!, memory.due);
    });
    expect(days).toEqual([0, 2, 11, 46, 163, 498, 0, 0, 2, 4, 7, 12, 21]);
  });

  // FSRS 4.5 and later: stability is the time after which nine of ten are remembered.
  test('after its stability a card is remembered with a chance of 0.9', () => {
    const learnt = answered(newMemory(BEGIN), 'easily', { at: BEGIN, ...plain });
    expect(chanceOf(learnt, after(BEGIN, learnt.stability * 86_400_000))).toBeCloseTo(0.9, 1);
    expect(chanceOf(newMemory(BEGIN), BEGIN)).toBeNull();
  });
});

test('the same answers of the same card lead to the same day, in whichever order cards are answered', () => {
  const run = (seed: string) => {
    let memory = newMemory(BEGIN);
    for (let n = 0; n < 5; n++) memory = answered(memory, 'knew', { at: memory.due, wish: 0.9, seed });
    return memory.due;
  };
  const first = ['a', 'b', 'c'].map(run);
  expect(['c', 'b', 'a'].map(run).reverse()).toEqual(first);
  expect(new Set(first).size).toBeGreaterThan(1);
});

test('who wants to remember more sees a card sooner', () => {
  let [more, less] = [newMemory(BEGIN), newMemory(BEGIN)];
  for (let n = 0; n < 4; n++) {
    more = answered(more, 'knew', { at: more.due, wish: 0.95, seed: '' });
    less = answered(less, 'knew', { at: less.due, wish: 0.8, seed: '' });
  }
  expect(daysBetween(BEGIN, more.due)).toBeLessThan(daysBetween(BEGIN, less.due));
});

test('whatever is answered, and however the clock is set, a card comes back later than it was seen', () => {
  const step = fc.record({
    rating: fc.constantFrom<CardRating>(...RATINGS),
    hours: fc.integer({ min: -2_000, max: 9_000 }),
  });
  fc.assert(
    fc.property(
      fc.array(step, { minLength: 1, maxLength: 25 }),
      fc.double({ min: 0.7, max: 0.97, noNaN: true }),
      (steps, wish) => {
        let at = BEGIN;
        let memory: CardMemory = newMemory(BEGIN);
        for (const [n, { rating, hours }] of steps.entries()) {
          at = after(at, hours * 3_600_000);
          const next = answered(memory, rating, { at, wish, seed: 'card' });
          expect(next.seen).toBe(n + 1);
          expect(next.due > next.last!).toBe(true);
          expect(memory.last === null || next.last! >= memory.last).toBe(true);
          expect(next.stability).toBeGreaterThan(0);
          expect(next.difficulty).toBeGreaterThanOrEqual(1);
          expect(next.difficulty).toBeLessThanOrEqual(10);
          memory = next;
        }
      },
    ),
    { numRuns: 100 },
  );
});

test('a better answer never brings a card back sooner', () => {
  const history = fc.array(fc.constantFrom<CardRating>(...RATINGS), { maxLength: 8 });
  fc.assert(
    fc.property(history, (ratings) => {
      let memory = newMemory(BEGIN);
      for (const rating of ratings) memory = answered(memory, rating, { at: memory.due, wish: 0.9, seed: 'card' });
      const dues = RATINGS.map((rating) => answered(memory, rating, { at: memory.due, wish: 0.9, seed: 'card' }).due);
      expect([...dues].sort()).toEqual(dues);
    }),
    { numRuns: 200 },
  );
});
