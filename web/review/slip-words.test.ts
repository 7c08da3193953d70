import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { CardPassage } from '@avrelle/core/wire';
import { chosenBy, slipsOf, wordBlocks } from './slip-words';

const TEXT = 'It is 21 mm in thirty years, and “not small” at all; it’s a lot.';
const START = 100;
const part = (text: string, marked: boolean) => ({ text, marked, slip: null });
const passage = {
  start: START + 3,
  blocks: [
    { start: 0, isHeading: false, holds: false, parts: [part('Before it.', false)] },
    {
      start: START,
      isHeading: false,
      holds: true,
      parts: [part('It ', false), part('is 21 mm', true), part(TEXT.slice(11), false)],
    },
  ],
} as unknown as CardPassage;
const blocks = wordBlocks(passage, 'en');

test('a passage in words: only its own paragraphs, and nothing of them is lost', () => {
  expect(blocks.map(({ start }) => start)).toEqual([START]);
  expect(blocks[0]!.stretches.map(({ text }) => text).join('')).toBe(TEXT);
  expect(blocks[0]!.stretches.filter(({ marked }) => marked).map(({ text }) => text)).toEqual(['is', '21', 'mm']);
});

test('whatever words are chosen, the same are chosen when the card is changed', () => {
  const keys = blocks.flatMap(({ stretches }) => stretches.flatMap(({ key }) => key ?? []));
  fc.assert(
    fc.property(fc.subarray(keys), (chosen) => {
      const slips = slipsOf(blocks, passage.start, chosen);
      expect(chosenBy(blocks, passage.start, slips)).toEqual(chosen);
      for (const { at, words } of slips) expect(TEXT.slice(at + 3, at + 3 + words.length)).toBe(words);
    }),
  );
});
