import { editDistance } from '@avrelle/core/anchor';
import { asksWords, writeQuery, type Query } from '@avrelle/core/query';
import type { Db } from '../db/database';
import { folded } from '../db/spaced';
import { wordsBetween } from './queries';

/** So many words like it are tried, the likest and most used first. */
const TRIED = 6;
const units = (word: string): number[] => Array.from(word, (c) => c.codePointAt(0)!);

/**
 * A query of which nothing was found, with one word as it was probably meant. Words of others are never told: it is
 * taken only where `finds` says that the asker would find something with it.
 */
export function probablyMeant(db: Db, query: Query | undefined, finds: (query: Query) => boolean): string | undefined {
  if (!query) return undefined;
  for (const term of asksWords(query)) {
    const word = folded(term.words);
    if (!/^[\p{L}\p{N}]{3,}$/u.test(word)) continue;
    for (const like of wordsLike(db, word)) {
      const meant = replaced(query, term, like);
      if (finds(meant)) return writeQuery(meant);
    }
  }
  return undefined;
}

/** So long words of an index that begin alike are remembered, in milliseconds: to count their uses takes as long as a hundred searches. */
const REMEMBERED = 10 * 60_000;
const remembered = new WeakMap<
  Db,
  Map<string, { readonly at: number; readonly words: ReturnType<typeof wordsBetween> }>
>();

function wordsFrom(db: Db, letter: string): ReturnType<typeof wordsBetween> {
  const known =
    remembered.get(db) ?? new Map<string, { readonly at: number; readonly words: ReturnType<typeof wordsBetween> }>();
  const before = known.get(letter);
  if (before && Date.now() - before.at < REMEMBERED) return before.words;
  const words = wordsBetween(db, letter, String.fromCodePoint(letter.codePointAt(0)! + 1));
  remembered.set(db, known.set(letter, { at: Date.now(), words }));
  return words;
}

/** Words that begin alike and differ by a letter in four at most. */
function wordsLike(db: Db, word: string): readonly string[] {
  const most = Math.max(1, Math.floor(word.length / 4));
  const first = Array.from(word)[0]!;
  const wanted = units(word);
  const near = wordsFrom(db, first).flatMap(({ term, uses }) => {
    if (term === word || Math.abs(term.length - word.length) > most) return [];
    const distance = editDistance(wanted, units(term));
    return distance <= most ? [{ term, uses, distance }] : [];
  });
  return near
    .sort((a, b) => a.distance - b.distance || b.uses - a.uses)
    .slice(0, TRIED)
    .map((n) => n.term);
}

function replaced(query: Query, term: Query, words: string): Query {
  if (query === term) return query.type === 'words' ? { ...query, words } : query;
  if (query.type === 'all' || query.type === 'any')
    return { ...query, of: query.of.map((part) => replaced(part, term, words)) };
  return query;
}
