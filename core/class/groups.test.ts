import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { seeded } from '../random';
import { dealt } from './groups';

test('people are dealt evenly, everybody once', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat()), fc.integer({ min: 1, max: 12 }), fc.integer(), (people, count, seed) => {
      const groups = dealt(people, count, seeded(seed));
      const sizes = groups.map((group) => group.length);
      expect(groups).toHaveLength(count);
      expect(groups.flat().toSorted((a, b) => a - b)).toEqual(people.toSorted((a, b) => a - b));
      expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
    }),
  );
});

test('each of four is as often with each other one', () => {
  const random = seeded(7);
  const together = { b: 0, c: 0, d: 0 };
  for (let n = 0; n < 3000; n++) {
    const group = dealt(['a', 'b', 'c', 'd'] as const, 2, random).find((one) => one.includes('a'))!;
    for (const one of group) if (one !== 'a') together[one]++;
  }
  // 1,000 are expected of each; three standard deviations of a binomial are 77.
  for (const count of Object.values(together)) expect(Math.abs(count - 1000)).toBeLessThan(80);
});
