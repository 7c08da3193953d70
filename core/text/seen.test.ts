import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { grownSeen, seenPart } from './seen';
import type { Block } from './stream';

const block = (start: number, end: number, aside = false): Block => ({
  start,
  end,
  role: 'paragraph',
  path: '',
  ...(aside ? { aside } : {}),
});

test('what a triple click takes of a hidden advertisement is left out, as is what lies beyond one', () => {
  const outline = [block(0, 10), block(11, 20, true), block(21, 60)];
  expect(seenPart(outline, { start: 2, end: 15 })).toEqual({ start: 2, end: 11 });
  expect(seenPart(outline, { start: 2, end: 50 })).toEqual({ start: 20, end: 50 });
  expect(seenPart(outline, { start: 12, end: 18 })).toBeUndefined();
  const all = { start: 22, end: 30 };
  expect(seenPart(outline, all)).toBe(all);
});

test('nothing hidden is taken, whatever is selected', () => {
  const outlines = fc
    .array(fc.tuple(fc.integer({ min: 1, max: 9 }), fc.boolean()), { minLength: 1, maxLength: 12 })
    .map((blocks) => {
      let at = 0;
      return blocks.map(([length, aside]) => block(at, (at += length), aside));
    });
  fc.assert(
    fc.property(outlines, fc.nat(60), fc.integer({ min: 1, max: 60 }), (outline, start, length) => {
      const part = seenPart(outline, { start, end: start + length });
      for (const { start: from, end: to } of outline.filter((b) => b.aside))
        expect(part && part.start < to && part.end > from).toBeFalsy();
    }),
  );
});

describe('a passage that is grown', () => {
  const outline = [block(0, 10), block(11, 20, true), block(21, 40), block(41, 50, true), block(51, 60)];

  test('goes up to the next words that are hidden, and no further', () => {
    expect(grownSeen(outline, { start: 25, end: 30 }, { start: 25, end: 58 })).toEqual({ start: 25, end: 40 });
    expect(grownSeen(outline, { start: 25, end: 30 }, { start: 3, end: 30 })).toEqual({ start: 21, end: 30 });
    const within = { start: 22, end: 39 };
    expect(grownSeen(outline, { start: 25, end: 30 }, within)).toBe(within);
  });

  test('keeps what it held before, also hidden words, and can be made smaller', () => {
    expect(grownSeen(outline, { start: 5, end: 30 }, { start: 5, end: 58 })).toEqual({ start: 5, end: 40 });
    const smaller = { start: 25, end: 28 };
    expect(grownSeen(outline, { start: 5, end: 58 }, smaller)).toBe(smaller);
  });
});
