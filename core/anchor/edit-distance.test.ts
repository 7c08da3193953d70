import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distance } from 'fastest-levenshtein';
import { align, editDistance } from './edit-distance';
import { unitsOf } from './fold';

const letters = fc.string({ maxLength: 140, unit: fc.constantFrom('a', 'b', 'c', ' ') });

test('the reference library for edit distance agrees', () => {
  fc.assert(
    fc.property(letters, letters, (a, b) => expect(editDistance(unitsOf(a), unitsOf(b))).toBe(distance(a, b))),
    { numRuns: 600, seed: 1 },
  );
});

test('an alignment costs what the distance says', () => {
  fc.assert(
    fc.property(letters, letters, (a, b) => {
      const places = align(unitsOf(a), unitsOf(b));
      let cost = 0;
      let next = 0;
      places.forEach((place, i) => {
        if (place < 0) return cost++;
        expect(place).toBeGreaterThanOrEqual(next);
        cost += place - next + (a[i] === b[place] ? 0 : 1);
        next = place + 1;
      });
      expect(cost + b.length - next).toBe(distance(a, b));
    }),
    { numRuns: 600, seed: 2 },
  );
});

test('with a free end the text behind the best fit costs nothing', () => {
  const places = align(unitsOf('marsh'), unitsOf('marsh and mud'), 'free');
  expect([...places]).toEqual([0, 1, 2, 3, 4]);
});
