import type { Query, Term } from './query';

/** Whether words hold a letter or a digit: signs alone are found nowhere. */
const says = (words: string): boolean => /[\p{L}\p{N}\p{Co}]/u.test(words);

/** A query without words that are signs only, as one types between words; undefined where nothing is left of it. */
export function meaningful(query: Query | undefined): Query | undefined {
  if (!query) return undefined;
  switch (query.type) {
    case 'all':
    case 'any': {
      const of = query.of.flatMap((part) => meaningful(part) ?? []);
      if (of.length === query.of.length && of.every((part, n) => part === query.of[n])) return query;
      return of.length > 1 ? { ...query, of } : of[0];
    }
    case 'not': {
      const of = meaningful(query.of);
      return of === query.of ? query : of && { ...query, of };
    }
    case 'words':
      return says(query.words) ? query : undefined;
    default:
      return query;
  }
}

type Words = Extract<Term, { type: 'words' }>;

/** The words that are looked for, wherever in the query; those that must not be there are left out. */
export function asksWords(query: Query | undefined): readonly Words[] {
  if (!query || query.type === 'not') return [];
  if (query.type === 'all' || query.type === 'any') return query.of.flatMap(asksWords);
  return query.type === 'words' ? [query] : [];
}
