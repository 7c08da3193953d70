import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { PlacedBlock } from '../../reader/document/use-layout';
import { blockAt, characterAt } from './place-of-top';
import { throttled } from './throttled';

const block = (start: number, end: number, top: number, bottom: number) =>
  ({ block: { start, end }, top, bottom }) as unknown as PlacedBlock;
/** Two paragraphs with a picture without words between them. */
const BLOCKS = [block(0, 100, 50, 150), block(100, 300, 400, 500)];

test.each([
  ['above all words: the first', 0, 0, 0],
  ['halfway down a paragraph: its middle', 100, 50, 0],
  ['beside what has no words: what comes next', 300, 100, 1],
  ['at the end of a paragraph: its last', 499.9, 299, 1],
  ['below all words: the last', 900, 299, null],
])('%s', (_name, top, character, at) => {
  expect([characterAt(BLOCKS, top), blockAt(BLOCKS, top)]).toEqual([character, at]);
});

test('a page without words has no character', () => {
  expect([characterAt([], 10), blockAt([], 10)]).toEqual([undefined, null]);
});

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

test('what comes too often is told now and then, and the last of it always', () => {
  const told: number[] = [];
  const tell = throttled<number>(40, (value) => told.push(value));
  for (const value of [1, 2, 3]) tell(value);
  expect(told).toEqual([1]);
  jest.advanceTimersByTime(40);
  expect(told).toEqual([1, 3]);
  jest.advanceTimersByTime(200);
  expect(told).toEqual([1, 3]);
  tell(4);
  tell(5);
  // At once, in the place of what waits: nothing older comes after it.
  tell.now(6);
  jest.advanceTimersByTime(200);
  expect(told).toEqual([1, 3, 4, 6]);
  tell(7);
  tell(8);
  tell.stop();
  jest.advanceTimersByTime(200);
  expect(told.at(-1)).toBe(7);
});
