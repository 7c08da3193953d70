import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { wordsIn } from '../text';
import { partsOf, placeSlips, slipsOver } from './slips';
import { surroundings } from './surroundings';

const TEXT = 'The gauge rose by 117 mm. The difference is 21 mm in thirty years, and it is not small at all.';
const passage = { start: 0, end: TEXT.indexOf('.') + 1 };
const wordsAt = (...words: string[]) =>
  words.map((word) => ({ start: TEXT.indexOf(word), end: TEXT.indexOf(word) + word.length }));

test('words side by side lie under one slip, others under their own, in the order of the text', () => {
  const slips = slipsOver(TEXT, passage.start, wordsAt('small', '21', 'mm in'));
  expect(slips.map((slip) => slip.words)).toEqual(['21 mm in', 'small']);
  expect(placeSlips(TEXT, passage.start, slips).map((piece) => TEXT.slice(piece!.start, piece!.end))).toEqual([
    '21 mm in',
    'small',
  ]);
});

test('slips keep to their words when the text around them changes, and are missing where they are gone', () => {
  const slips = slipsOver(TEXT, 0, wordsAt('21', 'small'));
  const changed = `Newly: ${TEXT.replace('small', 'great')}`;
  const [first, second] = placeSlips(changed, 7, slips);
  expect(changed.slice(first!.start, first!.end)).toBe('21');
  expect(second).toBeNull();
  // Of words that stand there twice, the nearer.
  expect(placeSlips('a b a', 0, [{ at: 3, words: 'a' }])).toEqual([{ start: 4, end: 5 }]);
});

test('whatever is chosen, the parts of a block are the block, and hide what is chosen and nothing else', () => {
  const words = wordsIn(TEXT, { start: 0, end: TEXT.length }, 'en');
  fc.assert(
    fc.property(fc.subarray(words), fc.nat(TEXT.length), fc.nat(40), (chosen, from, length) => {
      const marked = { start: from, end: Math.min(TEXT.length, from + length) };
      const slips = placeSlips(TEXT, from, slipsOver(TEXT, from, chosen));
      const parts = partsOf({ start: 0, text: TEXT }, marked, slips as { start: number; end: number }[]);
      expect(parts.map((part) => part.text).join('')).toBe(TEXT);
      expect(
        parts
          .filter((part) => part.marked)
          .map((part) => part.text)
          .join(''),
      ).toBe(TEXT.slice(marked.start, marked.end));
      let at = 0;
      const hidden = parts.flatMap(({ text, slip }) => [...text].map(() => ({ at: at++, is: slip !== null })));
      for (const word of words)
        expect(hidden.slice(word.start, word.end).every(({ is }) => is === chosen.includes(word))).toBe(true);
    }),
  );
});

describe('around a passage', () => {
  const blocks = ['Heading', 'One thing.', 'Another thing that is marked.', 'A third.', 'A fourth.'];
  const text = blocks.join('\n');
  const outline = blocks.map((words, n) => {
    const start = text.indexOf(words);
    return {
      start,
      end: start + words.length,
      role: n === 0 ? ('heading' as const) : ('paragraph' as const),
      path: `${n}`,
    };
  });
  const shown = (words: string) => {
    const start = text.indexOf(words);
    return surroundings(text, outline, { start, end: start + words.length });
  };

  test('its paragraphs, the one before and the one after are shown', () => {
    expect(shown('that is').map((s) => [s.text, s.holds])).toEqual([
      ['One thing.', false],
      ['Another thing that is marked.', true],
      ['A third.', false],
    ]);
    expect(shown('Heading').map((s) => [s.text, s.isHeading])).toEqual([
      ['Heading', true],
      ['One thing.', false],
    ]);
    expect(shown('A fourth.').map((s) => s.text)).toEqual(['A third.', 'A fourth.']);
    expect(shown('thing.\nAnother').map((s) => s.holds)).toEqual([false, true, true, false]);
  });

  test('of a very long paragraph only what is near, between words', () => {
    const long = `${'before '.repeat(500)}HERE${' after'.repeat(500)}`;
    const start = long.indexOf('HERE');
    const [only] = surroundings(long, [{ start: 0, end: long.length, role: 'paragraph', path: '0' }], {
      start,
      end: start + 4,
    });
    expect(only!.text.length).toBeLessThan(1_500);
    expect(only!.text).toMatch(/^before .*HERE.* after$/);
    expect(long.slice(only!.start, only!.start + only!.text.length)).toBe(only!.text);
  });
});
