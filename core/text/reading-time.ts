import type { Outline } from './stream';

/**
 * Adult silent reading of English non-fiction: 238 words a minute (M. Brysbaert, "How many words do we read per
 * minute?", Journal of Memory and Language 109, 2019; the value from memory).
 */
export const WORDS_PER_MINUTE = 238;
/** Scripts without word spaces: characters a minute, common practice for Japanese and Chinese. */
const CHARACTERS_PER_MINUTE = 500;
const UNSPACED =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/gu;

/** Minutes of reading, unrounded. */
export function readingMinutes(text: string): number {
  const unspaced = text.match(UNSPACED)?.length ?? 0;
  const words = text.replace(UNSPACED, ' ').match(/\S+/g)?.length ?? 0;
  return words / WORDS_PER_MINUTE + unspaced / CHARACTERS_PER_MINUTE;
}

/** The main text alone: what the outline does not set aside. */
export function mainText(text: string, outline: Outline): string {
  return outline
    .filter((b) => !b.aside)
    .map((b) => text.slice(b.start, b.end))
    .join('\n');
}
