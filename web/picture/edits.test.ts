import { describe, expect, test } from '@jest/globals';
import { apply, leftOf, rectBetween, type Pixels, type Rect } from './edits';

const WHOLE: Rect = { x: 0, y: 0, width: 40, height: 30 };
/** Every pixel of a colour of its own. */
const picture = (): Pixels => ({
  width: 40,
  height: 30,
  data: new Uint8ClampedArray(40 * 30 * 4).map((_, n) => (n % 4 === 3 ? 255 : (n * 7) % 251)),
});
const at = ({ width, data }: Pixels, x: number, y: number): number[] => [
  ...data.slice(4 * (y * width + x), 4 * (y * width + x) + 4),
];
const area = { x: 5, y: 6, width: 26, height: 20 };
const inside = (x: number, y: number): boolean => x >= 5 && x < 31 && y >= 6 && y < 26;

test('blacking out leaves black and nothing else, and touches nothing beside it', () => {
  const before = picture();
  const after = picture();
  apply(after, { type: 'hide', area });
  for (let y = 0; y < 30; y++)
    for (let x = 0; x < 40; x++) expect(at(after, x, y)).toEqual(inside(x, y) ? [0, 0, 0, 255] : at(before, x, y));
});

describe('pixelating', () => {
  const before = picture();
  const after = picture();
  apply(after, { type: 'pixelate', area });
  test('leaves one colour a block, the mean of what was there', () => {
    const block = [];
    for (let y = 6; y < 18; y++)
      for (let x = 5; x < 17; x++) {
        expect(at(after, x, y)).toEqual(at(after, 5, 6));
        block.push(at(before, x, y)[0]!);
      }
    expect(at(after, 5, 6)[0]).toBe(Math.round(block.reduce((a, b) => a + b) / block.length));
  });
  test('goes on to the edge of the area, not beyond', () => {
    expect(at(after, 30, 25)).toEqual(at(after, 29, 24));
    expect([at(after, 31, 25), at(after, 4, 6)]).toEqual([at(before, 31, 25), at(before, 4, 6)]);
  });
  test('leaves at most eight blocks across the shorter side, however large it is', () => {
    const large: Pixels = {
      width: 400,
      height: 400,
      data: new Uint8ClampedArray(400 * 400 * 4).map((_, n) => (n % 4 === 3 ? 255 : (n * 31) % 256)),
    };
    apply(large, { type: 'pixelate', area: { x: 0, y: 0, width: 400, height: 400 } });
    const row = Array.from({ length: 400 }, (_, x) => at(large, x, 0).join(' '));
    expect(row.filter((colour, x) => colour !== row[x - 1]).length).toBeLessThanOrEqual(8);
  });
});

test('of several crops the last counts; none leaves all', () => {
  expect(leftOf([], WHOLE)).toBe(WHOLE);
  expect(
    leftOf(
      [
        { type: 'crop', area },
        { type: 'hide', area: WHOLE },
        { type: 'crop', area: { ...area, x: 7 } },
      ],
      WHOLE,
    ),
  ).toEqual({ ...area, x: 7 });
});

test('a rectangle is drawn from any corner and held within what is left', () => {
  expect(rectBetween({ x: 20.6, y: 9 }, { x: 3.2, y: 2.5 }, WHOLE)).toEqual({ x: 3, y: 2, width: 18, height: 7 });
  expect(rectBetween({ x: -9, y: -9 }, { x: 99, y: 99 }, area)).toEqual(area);
  expect(rectBetween({ x: 0, y: 0 }, { x: 4, y: 4 }, area)).toBeUndefined();
});
