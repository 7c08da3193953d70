import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { inkOnly } from './ink-only';

const taken = (r: number, g: number, b: number, dark = false): number[] => {
  const pixels = new Uint8ClampedArray([r, g, b, 255]);
  inkOnly(pixels, dark);
  return [...pixels];
};
/** What is seen of a pixel over a ground. */
const over = ([r, g, b, a]: number[], ground: readonly number[]): number[] =>
  [r!, g!, b!].map((c, n) => (c * a! + ground[n]! * (255 - a!)) / 255);
const byte = () => fc.integer({ min: 0, max: 255 });

describe('a page without its paper', () => {
  test('over white is the page as it was', () => {
    fc.assert(
      fc.property(byte(), byte(), byte(), (r, g, b) =>
        over(taken(r, g, b), [255, 255, 255]).every((c, n) => Math.abs(c - [r, g, b][n]!) <= 1),
      ),
    );
  });

  test('lets a tint through where it is white, and stays black where it is black', () => {
    const weld = [243, 222, 133];
    expect(over(taken(255, 255, 255), weld)).toEqual(weld);
    expect(over(taken(0, 0, 0), weld)).toEqual([0, 0, 0]);
  });

  test('turned dark: white is the ground, black is light, and a hue stays', () => {
    expect(over(taken(255, 255, 255, true), [0, 0, 0])).toEqual([0, 0, 0]);
    expect(over(taken(0, 0, 0, true), [0, 0, 0])).toEqual([255, 255, 255]);
    const [r, g, b] = over(taken(120, 0, 0, true), [0, 0, 0]);
    expect([r! > g!, Math.round(g!) === Math.round(b!)]).toEqual([true, true]);
  });
});
