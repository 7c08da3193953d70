import { expect, test } from '@jest/globals';
import type { Block } from '@avrelle/core/text';
import { about, type PlacedBlock } from './use-layout';

const block = (start: number, end: number, top: number, bottom: number): PlacedBlock => ({
  block: { start, end, role: 'paragraph', path: '0' } as Block,
  top,
  bottom,
});
const BLOCKS = [block(0, 10, 0, 20), block(11, 111, 40, 240), block(200, 220, 300, 340)];

test.each([
  ['at the beginning of a block, at its top', 11, 40],
  ['halfway into its words, halfway down', 61, 140],
  ['in the first', 5, 10],
  ['in the last', 210, 320],
])('a mark without a note stands %s', (_, at, top) => expect(about(BLOCKS, at)).toMatchObject({ top, loose: true }));

test('what stands in no block that is shown has no place', () =>
  expect([about(BLOCKS, 10), about(BLOCKS, 150), about(BLOCKS, 500), about([], 0)]).toEqual([
    undefined,
    undefined,
    undefined,
    undefined,
  ]));
