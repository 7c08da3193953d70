import type { Range } from './offset';

/** At most so many are given: more are not looked through one by one. */
const MOST = 1_000;

/** Characters that are typed alike: quotation marks, apostrophes and dashes of every form. */
const ALIKE: readonly (readonly [RegExp, string])[] = [
  [/['\u2018\u2019\u02BC]/g, "['\u2018\u2019\u02BC]"],
  [/["\u201C\u201D\u201E\u00AB\u00BB]/g, '["\u201C\u201D\u201E\u00AB\u00BB]'],
  [/[-\u2010-\u2014]/g, '[-\u2010-\u2014]'],
];

/** Where words stand in a text, in order: case does not matter, white space is any white space. UTF-16 units, half-open. */
export function findWords(text: string, words: string): readonly Range[] {
  const wanted = words.trim();
  if (wanted === '') return [];
  let pattern = wanted.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&').replace(/\s+/g, '\\s+');
  for (const [typed, any] of ALIKE) pattern = pattern.replace(typed, any);
  const found: Range[] = [];
  for (const match of text.matchAll(new RegExp(pattern, 'giu'))) {
    found.push({ start: match.index, end: match.index + match[0].length } as Range);
    if (found.length === MOST) break;
  }
  return found;
}
