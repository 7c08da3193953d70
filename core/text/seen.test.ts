import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { seenPart } from './seen';
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
