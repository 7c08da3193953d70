/** From here on scripts stand without spaces between words, or the units are surrogates. */
const WITHOUT_SPACES = 0x2e80;

/** True for a letter, mark or digit of a script that puts spaces between words. */
export const isWordUnit = (unit: number): boolean => {
  if (unit < 128) return (unit >= 97 && unit <= 122) || (unit >= 48 && unit <= 57) || (unit >= 65 && unit <= 90);
  return unit < WITHOUT_SPACES && /[\p{L}\p{M}\p{N}]/u.test(String.fromCharCode(unit));
};

/** True where a boundary at `at` would part a word. */
export const cutsWord = (units: Uint16Array, at: number): boolean =>
  at > 0 && at < units.length && isWordUnit(units[at - 1]!) && isWordUnit(units[at]!);

/** A longer run of letters is no word, and is cut where it falls. */
const LONGEST_WORD = 60;

/** The nearest word boundary from `at` on in a direction, not beyond `limit`; `at` itself where none is near. */
export function toWordBoundary(units: Uint16Array, at: number, direction: 1 | -1, limit: number): number {
  for (let steps = 0, to = at; steps <= LONGEST_WORD; steps++, to += direction) {
    if (to === limit || !cutsWord(units, to)) return to;
  }
  return at;
}
