import { describe, expect, test } from '@jest/globals';
import readingTime from 'reading-time';
import {
  contains,
  mainText,
  offset,
  overlaps,
  range,
  readingMinutes,
  sentences,
  splitsPair,
  wholeCodePoints,
  WORDS_PER_MINUTE,
} from './index';

describe('offsets and ranges', () => {
  test('only non-negative integers are offsets, and a range does not run backwards', () => {
    expect(() => offset(-1)).toThrow(/not -1/);
    expect(() => offset(1.5)).toThrow(/not 1.5/);
    expect(() => range(5, 4)).toThrow(/\[5, 4\)/);
    expect(range(4, 4)).toEqual({ start: 4, end: 4 });
  });

  test('ranges are half-open: what touches does not overlap', () => {
    expect(overlaps(range(0, 5), range(5, 9))).toBe(false);
    expect(overlaps(range(0, 6), range(5, 9))).toBe(true);
    expect([contains(range(2, 4), 2), contains(range(2, 4), 4)]).toEqual([true, false]);
  });

  test('no range cuts a surrogate pair; one that cuts none is given back itself', () => {
    const text = 'ab𝒳cd';
    expect([0, 1, 2, 3, 4, 5].map((at) => splitsPair(text, at))).toEqual([false, false, false, true, false, false]);
    expect(wholeCodePoints(text, range(3, 5))).toEqual({ start: 2, end: 5 });
    expect(wholeCodePoints(text, range(0, 3))).toEqual({ start: 0, end: 4 });
    const whole = range(2, 4);
    expect(wholeCodePoints(text, whole)).toBe(whole);
  });
});

describe('sentences, after Unicode UAX #29', () => {
  const cut = (text: string, language?: string) => sentences(text, language).map((s) => text.slice(s.start, s.end));

  test('end at their marks and never cross a line', () => {
    expect(cut('It is not. Is it?  Yes!\nA heading\nNext one.')).toEqual([
      'It is not.',
      'Is it?',
      'Yes!',
      'A heading',
      'Next one.',
    ]);
  });

  test('a number with a point is not an end (SB6 of UAX #29)', () => {
    expect(cut('It rose by 3.2 mm a year.')).toHaveLength(1);
  });

  test('scripts without word spaces have sentences too', () => {
    expect(cut('潮が満ちる。水は静かだ。', 'ja')).toEqual(['潮が満ちる。', '水は静かだ。']);
  });

  test('a text without words has none', () => {
    expect(cut(' \n\t\n')).toEqual([]);
  });
});

describe('minutes of reading', () => {
  test('238 words are one minute', () => {
    expect(readingMinutes('word '.repeat(238))).toBeCloseTo(1, 5);
    expect(readingMinutes('')).toBe(0);
    // As a reference library reckons it at the same pace.
    const text =
      'On the marsh, at low water, nothing stands still: the pegs say 3.2 mm a year. Who reads them?\n\n'.repeat(60);
    expect(readingMinutes(text) / readingTime(text, { wordsPerMinute: WORDS_PER_MINUTE }).minutes).toBeCloseTo(1, 2);
  });

  test('scripts without word spaces are counted by character', () => {
    expect(readingMinutes('潮'.repeat(500))).toBeCloseTo(1, 5);
  });

  test('what lies aside does not count', () => {
    const text = 'Menu\nThe marsh\nMore';
    const outline = [
      { start: 0, end: 4, role: 'item' as const, path: '0', aside: true },
      { start: 5, end: 14, role: 'paragraph' as const, path: '1' },
      { start: 15, end: 19, role: 'paragraph' as const, path: '2', aside: true },
    ];
    expect(mainText(text, outline)).toBe('The marsh');
  });
});
