import { expect, test } from '@jest/globals';
import type { Outline } from '@avrelle/core/text';
import { lineAt, stretchOf } from './times';

const OUTLINE = [
  { role: 'heading', start: 0, end: 5 },
  { role: 'cue', start: 6, end: 16, locator: { from: 10, to: 20 } },
  { role: 'cue', start: 17, end: 27, locator: { from: 30, to: 35 } },
] as unknown as Outline;

test('the line at a moment is the one spoken, or the last before', () => {
  expect(lineAt(OUTLINE, 5)).toBeUndefined();
  expect(lineAt(OUTLINE, 12)?.start).toBe(6);
  expect(lineAt(OUTLINE, 25)?.start).toBe(6);
  expect(lineAt(OUTLINE, 99)?.start).toBe(17);
});

test('words are heard where they stand in the time of their line, moments where they say', () => {
  expect(stretchOf(OUTLINE, { start: 11, end: 12 }, undefined)).toEqual({ from: 15, to: 15 });
  expect(stretchOf(OUTLINE, { start: 6, end: 22 }, undefined)).toEqual({ from: 10, to: 32 });
  expect(stretchOf(OUTLINE, { start: 6, end: 16 }, { type: 'time', from: 3, to: 4 })).toEqual({ from: 3, to: 4 });
  expect(stretchOf(OUTLINE, { start: 1, end: 3 }, undefined)).toBeUndefined();
});
