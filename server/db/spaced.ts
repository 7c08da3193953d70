const WITHOUT_SPACES = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]\p{M}*/u;
const EACH = new RegExp(WITHOUT_SPACES, 'gu');

/** A text with every letter of a script that is written without spaces standing by itself: so words are found inside its runs, as phrases of letters. */
export const spaced = (text: string): string => (WITHOUT_SPACES.test(text) ? text.replace(EACH, ' $& ') : text);

/** As names are compared: without case and accents (Unicode NFD without its marks). */
export const folded = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
