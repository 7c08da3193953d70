import { expect, test } from '@jest/globals';
import type { StreamRange } from '../../page/page-frame';
import type { PlacedBlock } from '../../reader/document/use-layout';
import { blockAt, characterAt } from './place-of-top';

const LINE = 10;
const block = (start: number, end: number, top: number, bottom: number) =>
  ({ block: { start, end }, top, bottom }) as unknown as PlacedBlock;
/** Two paragraphs with a picture without words between them: the second of ten short lines and one of half its words. */
const BLOCKS = [block(0, 100, 50, 150), block(100, 300, 400, 510)];
/** How far down a character stands: ten to a line, but for the last line. */
const topOf = (at: number): number =>
  at < 100 ? 50 + Math.floor(at / 10) * LINE : 400 + Math.min(10, Math.floor((at - 100) / 10)) * LINE;
const boxes = ({ start }: StreamRange) => [{ left: 0, top: topOf(start), width: 8, height: LINE }];

test.each([
  ['above all words: the first', 0, 0, 0],
  ['halfway down a paragraph: its middle', 100, 50, 0],
  ['within a line: its first', 94, 40, 0],
  ['beside what has no words: what comes next', 300, 100, 1],
  ['down a paragraph of uneven lines: the line that stands there', 490, 190, 1],
  ['below all words: the last', 900, 299, null],
])('%s', (_name, top, character, at) => {
  expect([characterAt(boxes, BLOCKS, top), blockAt(BLOCKS, top)]).toEqual([character, at]);
});

test('a page without words has no character', () => {
  expect([characterAt(boxes, [], 10), blockAt([], 10)]).toEqual([undefined, null]);
});

test('what has no box of its own does not lead astray, and half a million characters are few questions', () => {
  let asked = 0;
  const long = block(0, 500_000, 0, 500_000);
  const some = ({ start, end }: StreamRange) => {
    asked++;
    const seen = start % 7 === 0 ? start + 1 : start;
    return seen < end ? [{ left: 0, top: Math.floor(seen / 10) * LINE, width: 8, height: LINE }] : [];
  };
  const at = characterAt(some, [long], 123_450)!;
  expect(Math.abs(Math.floor(at / 10) * LINE - 123_450)).toBeLessThanOrEqual(LINE);
  expect(asked).toBeLessThan(20);
});
