import { expect, test } from '@jest/globals';
import type { PlacedBlock } from '../../reader/document/use-layout';
import { blockAt, characterAt } from './place-of-top';

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
