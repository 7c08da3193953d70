import { flesch } from 'flesch';
import { syllable } from 'syllable';
import { sentences } from '@avrelle/core/text';
import type { Ease } from '@avrelle/core/wire';

/** The formula was found on pieces of a hundred words; of fewer it says nothing. */
const LEAST_WORDS = 100;
/** Some pages of a book say as much as the book. */
const MOST_CHARACTERS = 200_000;

/**
 * How easy an English text reads (R. Flesch, "A new readability yardstick", Journal of Applied Psychology 32, 1948);
 * undefined for other languages, for which the formula was not made, and for texts too short to tell.
 */
export function readingEase(text: string, language: string): Ease | undefined {
  if (!/^(en\b|$)/i.test(language)) return undefined;
  const said = sentences(text.slice(0, MOST_CHARACTERS), language || 'en')
    .map((s) => text.slice(s.start, s.end))
    .filter((s) => /\p{L}/u.test(s));
  const words = said.flatMap((s) => s.match(/[\p{L}\p{N}][\p{L}\p{N}\p{M}’'-]*/gu) ?? []);
  if (words.length < LEAST_WORDS) return undefined;
  return {
    ease: flesch({
      sentence: said.length,
      word: words.length,
      syllable: words.reduce((sum, word) => sum + syllable(word), 0),
    }),
    words: words.length,
    sentences: said.length,
  };
}
