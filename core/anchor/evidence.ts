import type { Alignment } from './alignment';
import type { Quoted } from './former';
import { lowerBound } from './lower-bound';
import { cutsWord, toWordBoundary } from './words';

/** What speaks for one place of a quotation, in folded units. */
export interface Evidence {
  /** The place in the present text, half-open. */
  readonly begin: number;
  readonly end: number;
  /** Units of the quotation. */
  readonly length: number;
  /** Share of the quotation that stands there, 0 to 1. */
  readonly kept: number;
  /** True where it stands there without an edit. */
  readonly whole: boolean;
  /** Units of the nearest context that stand beside it, and how many were known, left and right. */
  readonly left: number;
  readonly leftKnown: number;
  readonly right: number;
  readonly rightKnown: number;
  /** Units of quotation and context that agree somewhere else as well, at most. */
  readonly elsewhere: number;
}

/** Units of context that are looked at on each side. */
export const NEAR = 64;

/** Collects what speaks for the place that the alignment gives a quotation; undefined where it gives none. */
export function evidenceFor(alignment: Alignment, quoted: Quoted): Evidence | undefined {
  const place = placeOf(alignment, quoted);
  if (!place) return undefined;
  const { begin, end } = quoted;
  const stretch = alignment.former.stretches[quoted.stretch]!;
  const edges = clean(alignment, quoted, place);
  const leftKnown = Math.min(NEAR, begin - stretch.begin);
  const rightKnown = Math.min(NEAR, stretch.end - end);
  return {
    begin: edges.begin,
    end: edges.end,
    length: end - begin,
    kept: place.solid / (end - begin),
    whole: place.solid === end - begin && edges.end - edges.begin === end - begin,
    left: beside(alignment, [begin - leftKnown, begin], [edges.begin - 2 * NEAR, edges.begin]),
    leftKnown,
    right: beside(alignment, [end, end + rightKnown], [edges.end, edges.end + 2 * NEAR]),
    rightKnown,
    elsewhere: elsewhere(alignment, begin - leftKnown, end + rightKnown),
  };
}

interface Place {
  readonly first: number;
  readonly last: number;
  readonly solid: number;
}

/** Of the places that parts of the quotation went to, the one with most of it: first and last unit with a place. */
function placeOf({ to, solid }: Alignment, { begin, end }: Quoted): Place | undefined {
  const mostGap = end - begin + 200;
  let best: Place | undefined;
  let here: { first: number; last: number; solid: number } | undefined;
  for (let p = begin; p < end; p++) {
    if (to[p]! < 0) continue;
    const breaks = here && (to[p]! <= to[here.last]! || to[p]! - to[here.last]! > mostGap);
    if (!here || breaks) here = { first: p, last: p, solid: 0 };
    here.last = p;
    here.solid += solid[p]!;
    if (!best || here.solid >= best.solid) best = here;
  }
  return best && best.solid > 0 ? best : undefined;
}

/**
 * The place's ends. What replaced the quotation's first or last units belongs to it only where the context holds it in,
 * then as many units as they were, and whole words.
 */
function clean(
  { to, solid, former, text }: Alignment,
  { begin, end, stretch }: Quoted,
  place: Place,
): { begin: number; end: number } {
  const { begin: least, end: most } = former.stretches[stretch]!;
  const { first, last } = solidEnds(solid, place);
  let from = to[first]!;
  let until = to[last]! + 1;
  if (begin > least && solid[begin - 1] === 1 && to[begin - 1]! < from) {
    const floor = to[begin - 1]! + 1;
    from = Math.max(floor, from - (first - begin));
    if (!cutsWord(former.units, begin)) from = toWordBoundary(text, from, -1, floor);
  }
  if (end < most && solid[end] === 1 && to[end]! >= until) {
    const ceiling = to[end]!;
    until = Math.min(ceiling, until + (end - 1 - last));
    if (!cutsWord(former.units, end)) until = toWordBoundary(text, until, 1, ceiling);
  }
  return withoutSpaces(text, [from, until], [former.units[begin] !== SPACE, former.units[end - 1] !== SPACE]);
}

/** Spaces go from the ends at which they are not wanted; a unit is left. */
function withoutSpaces(
  text: Alignment['text'],
  [begin, end]: readonly [number, number],
  [atStart, atEnd]: readonly [boolean, boolean],
): { begin: number; end: number } {
  let until = end;
  if (atEnd) while (until > begin + 1 && text[until - 1] === SPACE) until--;
  let from = begin;
  if (atStart) while (from < until - 1 && text[from] === SPACE) from++;
  return { begin: from, end: until };
}

/** The first and the last unit of a place that stayed the same. */
function solidEnds(solid: Alignment['solid'], place: Place): Place {
  let { first, last } = place;
  while (first < last && solid[first] === 0) first++;
  while (last > first && solid[last] === 0) last--;
  return { ...place, first, last };
}

const SPACE = 32;

/** Units of `[from, until)` of the former that stand in `[low, high)` now. */
function beside(
  { to, solid }: Alignment,
  [from, until]: readonly [number, number],
  [low, high]: readonly [number, number],
): number {
  let count = 0;
  for (let p = from; p < until; p++) if (solid[p] === 1 && to[p]! >= low && to[p]! < high) count++;
  return count;
}

/** Matches before a place that are looked at; more than this many beside one another only a text of repeats has. */
const MOST_BACK = 400;

/** Calls with each match that reaches into `[begin, end)` of the former. */
export function eachMatch(
  { matches }: Alignment,
  begin: number,
  end: number,
  see: (match: number, from: number, to: number) => void,
): void {
  const after = lowerBound(matches.p, 0, matches.count, end);
  for (let n = after - 1; n >= 0 && n >= after - MOST_BACK && matches.reach[n]! > begin; n--) {
    const from = Math.max(begin, matches.p[n]!);
    const to = Math.min(end, matches.p[n]! + matches.length[n]!);
    if (to > from) see(n, from, to);
  }
}

function elsewhere(alignment: Alignment, begin: number, end: number): number {
  let most = 0;
  eachMatch(alignment, begin, end, (n, from, to) => {
    if (!alignment.taken[n]) most = Math.max(most, to - from);
  });
  return most;
}
