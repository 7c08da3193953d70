import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { foldText } from './fold';
import { occurrences } from './occurrences';
import { indexText } from './text-index';

function naive(text: string, words: string): number[] {
  const found: number[] = [];
  for (let at = text.indexOf(words); at >= 0; at = text.indexOf(words, at + 1)) found.push(at);
  return found;
}

test('every occurrence is found, of words of any length, as a plain search finds them', () => {
  const texts = fc
    .array(fc.constantFrom('tide', ' ', 'mud', 'a', 'tidemud', 'x'), { minLength: 1, maxLength: 60 })
    .map((p) => p.join(''));
  fc.assert(
    fc.property(texts, fc.nat(), fc.integer({ min: 1, max: 30 }), (text, at, length) => {
      const index = indexText(text);
      const plain = String.fromCharCode(...index.folded.units);
      const start = at % Math.max(1, plain.length);
      const words = plain.slice(start, start + length);
      fc.pre(words.length > 0);
      expect(occurrences(index, index.folded.units.subarray(start, start + words.length))).toEqual(naive(plain, words));
    }),
    { numRuns: 400, seed: 9 },
  );
});

test('of very many those about a place are given', () => {
  const index = indexText('tide '.repeat(2000));
  const found = occurrences(index, foldText('tide').units, 20, 5000);
  expect(found.length).toBeLessThanOrEqual(20);
  expect(found).toContain(5000);
  expect(found.every((at) => Math.abs(at - 5000) < 120)).toBe(true);
});

test('an equal passage is found behind any number of others that share its commonest letters', () => {
  const words = 'tide tide tide tide';
  const text = `${words} once. ${'tide tide tide! '.repeat(400)}${words} again.`;
  const index = indexText(text);
  expect(occurrences(index, foldText(words).units, 8, text.lastIndexOf(words))).toEqual([0, text.lastIndexOf(words)]);
});
