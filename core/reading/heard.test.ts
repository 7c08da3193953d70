import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { hear, heardTo, inOrder, type Heard } from './heard';

test('one goes on where it was heard to, and anywhere before; ahead only to what was heard before', () => {
  const heard: Heard = [
    [0, 10],
    [50, 60],
  ];
  expect([0, 9, 10, 10.9, 11, 49, 50, 59.9, 60, 400].map((at) => inOrder(heard, at))).toEqual([
    0, 9, 10, 10.9, 10, 10, 50, 59.9, 10, 10,
  ]);
  expect(inOrder([], 3)).toBe(0);
  // Begun in the middle, nothing is heard from the beginning.
  expect(heardTo([[5, 9]])).toBe(0);
});

test('whatever is asked for, nothing is passed over: what is heard to grows by what was played alone', () => {
  const wish = fc.record({
    at: fc.double({ min: 0, max: 300, noNaN: true }),
    play: fc.double({ min: 0, max: 40, noNaN: true }),
  });
  fc.assert(
    fc.property(fc.array(wish, { maxLength: 40 }), (wishes) => {
      let heard: Heard = [];
      const played = new Set<number>();
      for (const { at, play } of wishes) {
        const from = inOrder(heard, at);
        for (let second = Math.floor(from); second < Math.floor(from + play); second++) played.add(second);
        heard = hear(heard, from, from + play);
        for (let second = 0; second < heardTo(heard); second++) expect(played.has(second)).toBe(true);
      }
    }),
  );
});
