import { bucketOf, RollingHash, type GramIndex } from './gram-index';
import { lowerBound } from './lower-bound';
import type { TextIndex } from './text-index';

/**
 * Where these folded units stand in the text, ascending; of more than `most` those next to `near`, half on each side.
 * Cost: the occurrences of their rarest stretch.
 */
export function occurrences(index: TextIndex, words: Uint16Array, most = 1_000, near = 0): readonly number[] {
  const grams = words.length >= index.grams.k ? index.grams : index.shortGrams();
  if (words.length < grams.k) return single(index.folded.units, words, most);
  const seed = rarest(grams, words);
  const middle = lowerBound(grams.at, seed.first, seed.last, near + seed.offset);
  const found: number[] = [];
  const take = (hit: number): void => {
    const at = grams.at[hit]! - seed.offset;
    if (at >= 0 && at + words.length <= grams.units.length && equalAt(grams.units, at, words)) found.push(at);
  };
  for (let hit = middle - 1; hit >= seed.first && found.length < most >> 1; hit--) take(hit);
  found.reverse();
  for (let hit = middle; hit < seed.last && found.length < most; hit++) take(hit);
  return found;
}

/** Seeds tried for the rarest of a quotation: enough to pass by the commonplace beginnings. */
const TRIED = 64;

function rarest(grams: GramIndex, words: Uint16Array): { first: number; last: number; offset: number } {
  const rolling = new RollingHash(words, grams.k);
  let best = { first: 0, last: Infinity, offset: 0 };
  for (let offset = 0; offset + grams.k <= words.length && offset < TRIED; offset++) {
    const bucket = bucketOf(rolling.next(), grams);
    const first = grams.starts[bucket]!;
    const last = grams.starts[bucket + 1]!;
    if (last - first < best.last - best.first) best = { first, last, offset };
  }
  return best;
}

function equalAt(units: Uint16Array, at: number, words: Uint16Array): boolean {
  for (let i = 0; i < words.length; i++) if (units[at + i] !== words[i]) return false;
  return true;
}

function single(units: Uint16Array, words: Uint16Array, most: number): number[] {
  const found: number[] = [];
  if (words.length === 0) return found;
  for (let at = units.indexOf(words[0]!); at >= 0 && found.length < most; at = units.indexOf(words[0]!, at + 1))
    if (equalAt(units, at, words)) found.push(at);
  return found;
}
