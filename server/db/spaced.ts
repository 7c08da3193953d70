const WITHOUT_SPACES =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]\p{M}*/u;
const EACH = new RegExp(WITHOUT_SPACES, 'gu');
/** Combining Diacritical Marks, which Latin, Greek and Cyrillic letters bear: the signs of other scripts are no accents. */
const ACCENTS = /[\u0300-\u036f]/g;
// eslint-disable-next-line no-control-regex
const PLAIN = /^[\u0000-\u007f]*$/;

/**
 * A text as its words are indexed: without accents, and with every letter of a script that is written without spaces
 * standing by itself, so that words are found inside its runs, as phrases of letters.
 */
export function spaced(text: string): string {
  if (PLAIN.test(text)) return text;
  const bare = text.normalize('NFD').replace(ACCENTS, '').normalize('NFC');
  return WITHOUT_SPACES.test(bare) ? bare.replace(EACH, ' $& ') : bare;
}

/** As names are compared: without case and accents (Unicode NFD without its marks). */
export const folded = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
