import { alignTexts, type Alignment } from './alignment';
import { wholeFormer } from './former';
import type { TextIndex } from './text-index';
import { cutsWord, isWordUnit } from './words';

/** A piece of the way from one text to the next, in reading order. Ranges are half-open offsets of the two texts. */
export interface Change {
  readonly kind: 'kept' | 'removed' | 'added';
  /** In the former text; empty for what was added. */
  readonly before: readonly [number, number];
  /** In the present text; empty for what was removed. */
  readonly after: readonly [number, number];
}

interface Run {
  readonly p: number;
  readonly q: number;
  readonly length: number;
}

/** A kept piece between two changes that has fewer letters than this is read as part of the change. */
const LEAST_KEPT = 4;

/** What was removed and what was added between two texts, in whole words. What was moved is removed here and added there. */
export function compare(before: TextIndex, after: TextIndex): readonly Change[] {
  const alignment = alignTexts(wholeFormer(before.text, []), after.grams);
  const kept = inOrder(runsOf(alignment)).map((run) => wordsOf(run, before, after)).filter((run) => run !== undefined);
  const changes: Change[] = [];
  let p = 0, q = 0;
  for (const { before: [from, until], after: [start, end] } of kept) {
    if (from < p || start < q) continue;
    gap(changes, p, from, q, start);
    changes.push({ kind: 'kept', before: [from, until], after: [start, end] });
    p = until;
    q = end;
  }
  gap(changes, p, before.text.length, q, after.text.length);
  return changes;
}

function gap(changes: Change[], p: number, from: number, q: number, start: number): void {
  if (from > p) changes.push({ kind: 'removed', before: [p, from], after: [q, q] });
  if (start > q) changes.push({ kind: 'added', before: [from, from], after: [q, start] });
}

function runsOf({ to, solid, former: { units } }: Alignment): Run[] {
  const runs: Run[] = [];
  for (let p = 0; p < units.length;) {
    let length = 0;
    while (p + length < units.length && solid[p + length] === 1 && (length === 0 || to[p + length] === to[p + length - 1]! + 1)) length++;
    if (length > 0) runs.push({ p, q: to[p]!, length });
    p += Math.max(1, length);
  }
  return runs;
}

/** The heaviest runs that keep their order in both texts. O(n log n): the best weight up to each place in a Fenwick tree. */
function inOrder(runs: readonly Run[]): Run[] {
  const rank = new Map([...new Set(runs.map((r) => r.q))].sort((a, b) => a - b).map((q, n) => [q, n + 1]));
  const best = new Int32Array(rank.size + 1).fill(-1), weight = new Float64Array(runs.length), back = new Int32Array(runs.length).fill(-1);
  let last = -1;
  runs.forEach((run, n) => {
    const at = rank.get(run.q)!;
    let from = -1;
    for (let i = at - 1; i > 0; i -= i & -i) if (best[i]! >= 0 && (from < 0 || weight[best[i]!]! > weight[from]!)) from = best[i]!;
    back[n] = from;
    weight[n] = run.length + (from < 0 ? 0 : weight[from]!);
    for (let i = at; i < best.length; i += i & -i) if (best[i]! < 0 || weight[n]! > weight[best[i]!]!) best[i] = n;
    if (last < 0 || weight[n]! > weight[last]!) last = n;
  });
  const chosen: Run[] = [];
  for (let n = last; n >= 0; n = back[n]!) chosen.push(runs[n]!);
  return chosen.reverse();
}

/** A run without the parts of words at its ends; undefined when too little is left. */
function wordsOf({ p, q, length }: Run, before: TextIndex, after: TextIndex): { before: [number, number]; after: [number, number] } | undefined {
  const a = before.folded.units, b = after.folded.units;
  let start = 0, end = length;
  while (start < end && (cutsWord(a, p + start) || cutsWord(b, q + start))) start++;
  while (end > start && (cutsWord(a, p + end) || cutsWord(b, q + end))) end--;
  const whole = p + start === 0 || p + end === a.length;
  if (end <= start || (!whole && lettersIn(a, p + start, p + end) < LEAST_KEPT)) return undefined;
  return { before: [before.folded.from[p + start]!, before.folded.from[p + end]!], after: [after.folded.from[q + start]!, after.folded.from[q + end]!] };
}

function lettersIn(units: Uint16Array, from: number, until: number): number {
  let letters = 0;
  for (let i = from; i < until; i++) if (isWordUnit(units[i]!)) letters++; else if (units[i]! >= 0x2e80) letters += 2;
  return letters;
}
