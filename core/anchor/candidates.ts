import type { Alignment } from './alignment';
import type { Candidate } from './anchor';
import { editDistance } from './edit-distance';
import { eachMatch } from './evidence';
import type { Quoted } from './former';
import { graphemeEnd, graphemeStart } from './grapheme';
import type { TextIndex } from './text-index';
import { toWordBoundary } from './words';

const MOST = 3;
const LEAST_LIKENESS = 0.5;
const COMPARED = 12;
/** A longer quotation is compared by its first units: a candidate is only to be looked at. */
const LONGEST = 600;

/** Places that have much of a quotation, best first, other than the one it was given. */
export function candidatesFor(
  { text, folded }: TextIndex,
  alignment: Alignment,
  quoted: Quoted,
  given: { readonly begin: number; readonly end: number } | undefined,
): readonly Candidate[] {
  const { begin, end } = quoted;
  const length = end - begin;
  const places = new Map<number, number>();
  eachMatch(alignment, begin, end, (n, from, to) => {
    const at = alignment.matches.q[n]! - alignment.matches.p[n]! + begin;
    places.set(at, (places.get(at) ?? 0) + to - from);
  });
  const words = alignment.former.units.subarray(begin, Math.min(end, begin + LONGEST));
  const found: Candidate[] = [];
  for (const [at] of [...places].sort((a, b) => b[1] - a[1]).slice(0, COMPARED)) {
    let first = Math.max(0, at);
    let last = Math.min(folded.units.length, at + length);
    first = toWordBoundary(folded.units, first, -1, 0);
    last = toWordBoundary(folded.units, last, 1, folded.units.length);
    if (last <= first || (given && first < given.end && last > given.begin)) continue;
    const there = folded.units.subarray(first, Math.min(last, first + LONGEST));
    const likeness = 1 - editDistance(words, there) / Math.max(words.length, there.length);
    const start = graphemeStart(text, folded.from[first]!);
    const stop = graphemeEnd(text, folded.from[last - 1]! + 1);
    const apart = found.every((other) => stop <= other.start || start >= other.end);
    if (likeness >= LEAST_LIKENESS && apart)
      found.push({ start, end: stop, likeness: Math.round(likeness * 100) / 100 });
  }
  return found.sort((a, b) => b.likeness - a.likeness).slice(0, MOST);
}
