import type { Former } from './former';
import type { Matches } from './matches';

/** A piece of the way through both texts: `length` units at `p` of the former are those at `q` of the present. */
export interface Link {
  readonly p: number;
  readonly q: number;
  readonly length: number;
  readonly stretch: number;
  /** Which match it is part of. */
  readonly match: number;
}

/** Predecessors looked at for each match, nearest first; beside them the best of all before. */
const LOOK_BACK = 48;
/** What a match must be worth before it says anything: a few units agree by chance. */
const TOLL = 4;

/**
 * The most likely way through the matches in the order of the former text (Viterbi): a step to the next match costs the
 * more the further it leaves the present diagonal, and most where it goes backwards. Thereby the context, the order of
 * neighbours and the distance decide between equal passages, for all anchors together, and a moved one is still found.
 */
export function chain(matches: Matches, former: Former): readonly Link[] {
  const { count, p, q, length, stretch } = matches;
  const score = new Float64Array(count);
  const back = new Int32Array(count).fill(-1);
  const ahead = aheadOf(matches, former);
  let best = -1;
  /** The score of `j` when it comes after `n`; nothing where it cannot be more than `most`. */
  const through = (n: number, j: number, most: number): number => {
    const forward = q[j]! + length[j]! > q[n]! + length[n]! && q[j]! >= q[n]!;
    const gain = length[j]! - Math.max(0, p[n]! + length[n]! - p[j]!, forward ? q[n]! + length[n]! - q[j]! : 0);
    if (gain <= 0 || score[n]! + gain - TOLL <= most) return -Infinity;
    return score[n]! + gain - TOLL - stepCost(forward, stretch[n] === stretch[j], ahead[j]! - ahead[n]!);
  };
  for (let j = 0; j < count; j++) {
    /** A single anchor is looked for near its own place first. */
    let most = length[j]! - TOLL - logCost(ahead[j]!) / 2;
    let from = -1;
    const first = Math.max(0, j - LOOK_BACK);
    for (let i = best >= 0 && best < first ? first - 1 : first; i < j; i++) {
      const n = i < first ? best : i;
      const total = through(n, j, most);
      if (total > most) {
        most = total;
        from = n;
      }
    }
    score[j] = most;
    back[j] = from;
    if (best < 0 || most >= score[best]!) best = j;
  }
  return links(matches, back, best);
}

/** By match: how many units the present text is ahead of the former there. */
function aheadOf({ count, p, q, stretch }: Matches, { stretches }: Former): Int32Array {
  const ahead = new Int32Array(count);
  for (let n = 0; n < count; n++)
    ahead[n] = q[n]! - p[n]! - (stretches[stretch[n]!]!.origin - stretches[stretch[n]!]!.begin);
  return ahead;
}

/** Within a stretch everything between is known, so that another diagonal means an edit; between two, edits are likely anyway. */
function stepCost(forward: boolean, sameStretch: boolean, shift: number): number {
  if (!forward) return 14 + logCost(shift);
  if (!sameStretch) return 1 + logCost(shift) / 2;
  return shift === 0 ? 1 : 3 + logCost(shift);
}

const logCost = (shift: number): number => Math.log2(1 + Math.abs(shift));

/** The way back from its end, overlaps cut away at the start of the later match. */
function links(matches: Matches, back: Int32Array, last: number): readonly Link[] {
  const way: number[] = [];
  for (let n = last; n >= 0; n = back[n]!) way.push(n);
  way.reverse();
  const made: Link[] = [];
  for (const n of way) {
    const before = made.at(-1);
    const p = matches.p[n]!;
    const q = matches.q[n]!;
    const length = matches.length[n]!;
    const forward = before && q + length > before.q + before.length && q >= before.q;
    const cut = before ? Math.max(0, before.p + before.length - p, forward ? before.q + before.length - q : 0) : 0;
    made.push({ p: p + cut, q: q + cut, length: length - cut, stretch: matches.stretch[n]!, match: n });
  }
  return made;
}
