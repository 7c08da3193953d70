import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { around, charactersIn, range, snapEdge, stepEdge, wordsIn, type Edge, type Outline } from '.';

const TEXT = 'The marsh, which walks inland, is old.\nA second block.';
const OUTLINE = [
  { role: 'paragraph', start: 0, end: 38, path: '0' },
  { role: 'paragraph', start: 39, end: 54, path: '1' },
] as Outline;
const words = OUTLINE.flatMap((b) => wordsIn(TEXT, b, 'en'));
const said = (r: { start: number; end: number }): string => TEXT.slice(r.start, r.end);

test('the ends of a passage go from word to word, past punctuation', () => {
  const marsh = range(4, 9);
  expect(said(stepEdge(marsh, 'end', 1, words))).toBe('marsh, which');
  expect(said(stepEdge(marsh, 'start', -1, words))).toBe('The marsh');
  expect(stepEdge(marsh, 'end', -1, words)).toBe(marsh);
  expect(said(stepEdge(range(4, 16), 'end', -1, words))).toBe('marsh');
  expect(said(stepEdge(range(32, 37), 'end', 1, words))).toBe('s old.\nA');
});

test('from paragraph to paragraph, from character to character', () => {
  expect(said(stepEdge(range(4, 9), 'end', 1, OUTLINE))).toBe(TEXT.slice(4, 38));
  expect(said(stepEdge(range(4, 38), 'end', 1, OUTLINE))).toBe(TEXT.slice(4));
  expect(said(stepEdge(range(4, 9), 'end', 1, charactersIn(TEXT, OUTLINE[0]!, 'en')))).toBe('marsh,');
  expect(charactersIn('e\u0301👩‍🌾', range(0, 7), 'en').map((r) => r.end)).toEqual([2, 7]);
});

test('a dragged end comes to the nearest word, and never past the other end', () => {
  expect(said(snapEdge(range(4, 9), 'end', 14, words))).toBe('marsh, which');
  expect(said(snapEdge(range(4, 16), 'start', 50, words))).toBe('which');
});

test('blocks around an offset are its own and its neighbours', () => {
  expect(around(OUTLINE, 5)).toEqual([OUTLINE[0], OUTLINE[1]]);
  expect(around(OUTLINE, 54)).toEqual([OUTLINE[0], OUTLINE[1]]);
});

test('whatever is asked, something of the passage is left and the other end stays', () => {
  const offset = fc.integer({ min: 0, max: TEXT.length });
  fc.assert(
    fc.property(
      offset,
      offset,
      fc.constantFrom<Edge>('start', 'end'),
      fc.constantFrom<1 | -1>(1, -1),
      offset,
      (a, b, edge, direction, to) => {
        fc.pre(a !== b);
        const given = range(Math.min(a, b), Math.max(a, b));
        const other = edge === 'start' ? 'end' : 'start';
        for (const moved of [stepEdge(given, edge, direction, words), snapEdge(given, edge, to, words)]) {
          expect(moved.start).toBeLessThan(moved.end);
          expect(moved[other]).toBe(given[other]);
        }
      },
    ),
  );
});
