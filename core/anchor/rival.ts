import { NEAR } from './evidence';
import type { GramIndex } from './gram-index';
import { findMatches } from './matches';

/** Diagonals this close are one place: a few units more or less do not part it. */
const SPREAD = 16;

/**
 * Of a passage `[begin, end)` of the indexed units and its nearest context, how many units agree at the most similar
 * other place of the same text. 0 where nothing is like it.
 */
export function rivalOf(index: GramIndex, begin: number, end: number): number {
  const from = Math.max(0, begin - NEAR);
  const until = Math.min(index.units.length, end + NEAR);
  const units = index.units.subarray(from, until);
  const { count, p, q, length } = findMatches(
    { units, stretches: [{ begin: 0, end: units.length, origin: from }] },
    index,
    'thorough',
  );
  const found: { diagonal: number; length: number }[] = [];
  for (let n = 0; n < count; n++)
    if (q[n] !== p[n]! + from) found.push({ diagonal: q[n]! - p[n]!, length: length[n]! });
  found.sort((a, b) => a.diagonal - b.diagonal);
  let most = 0;
  let sum = 0;
  let first = 0;
  for (const { diagonal, length: agreed } of found) {
    sum += agreed;
    while (diagonal - found[first]!.diagonal > SPREAD) sum -= found[first++]!.length;
    most = Math.max(most, sum);
  }
  return Math.min(most, units.length);
}
