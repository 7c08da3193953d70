import { expect, test } from '@jest/globals';
import { goingOn, type LastInk } from './last-ink';

const LOOK = 'pen ink 3';
const at = (x: number) =>
  [
    [
      [x, 100, 0.5],
      [x + 20, 110, 0.5],
    ],
  ] as const;
const LAST: LastInk = { id: 'a', look: LOOK, strokes: at(100), time: { from: 5_000, until: 5_400 } };
const next = (x: number, from: number, until: number, look = LOOK) =>
  goingOn(LAST, { look, strokes: at(x), time: { from, until } });

test('a stroke that begins soon after the last, beside it, goes on with it, however long it takes itself', () => {
  expect(next(140, 6_000, 6_300)).toBe(LAST);
  expect(next(140, 6_500, 9_900)).toBe(LAST);
});

test('a later one, one far away and one of another look begin a drawing of their own', () => {
  expect(next(140, 6_700, 6_800)).toBeUndefined();
  expect(next(400, 6_000, 6_300)).toBeUndefined();
  expect(next(140, 6_000, 6_300, 'broad ink 18')).toBeUndefined();
  expect(goingOn(undefined, { look: LOOK, strokes: at(100), time: LAST.time })).toBeUndefined();
});
