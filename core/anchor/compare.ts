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

/** A kept piece between two changes is read as part of them when it has fewer letters than this, or is lost between far longer ones. */
const LEAST_KEPT = 4;
const LOST_BETWEEN = 16;
const FAR_LONGER = 6;

/** What was removed and what was added between two texts, in whole words. What was moved is removed here and added there. */
export function compare(before: TextIndex, after: TextIndex): readonly Change[] {
  const alignment = alignTexts(wholeFormer(before.text, []), after.grams);
  const kept = withoutScraps(
    inOrder(runsOf(alignment))
      .map((run) => wordsOf(run, before, after))
      .filter((run) => run !== undefined),
    before.text.length,
    after.text.length,
  );
  const changes: Change[] = [];
  let p = 0;
  let q = 0;
  for (const {
    before: [from, until],
    after: [start, end],
  } of kept) {
    if (from < p || start < q) continue;
    gap(changes, [p, from], [q, start]);
    changes.push({ kind: 'kept', before: [from, until], after: [start, end] });
    p = until;
    q = end;
  }
  gap(changes, [p, before.text.length], [q, after.text.length]);
  return slide(changes, before.text, after.text);
}

/**
 * A passage put in or taken out whose end equals what stands before it may as well begin earlier: at the beginning of
 * its line it reads as the paragraph it is.
 */
function slide(changes: readonly Change[], before: string, after: string): readonly Change[] {
  const slid = [...changes];
  for (let n = 1; n + 1 < slid.length; n++) {
    const last = slid[n - 1]!;
    const change = slid[n]!;
    const next = slid[n + 1]!;
    if (change.kind === 'kept' || last.kind !== 'kept' || next.kind !== 'kept') continue;
    const text = change.kind === 'removed' ? before : after;
    const [from, until] = change.kind === 'removed' ? change.before : change.after;
    const back = from - text.lastIndexOf('\n', from - 1) - 1;
    const fits =
      back > 0 &&
      back < last.after[1] - last.after[0] &&
      back < until - from &&
      text.slice(from - back, from) === text.slice(until - back, until) &&
      before.slice(last.before[1] - back, last.before[1]) === after.slice(last.after[1] - back, last.after[1]);
    if (!fits) continue;
    const earlier = ([start, end]: readonly [number, number]): [number, number] => [start - back, end - back];
    slid[n - 1] = {
      ...last,
      before: [last.before[0], last.before[1] - back],
      after: [last.after[0], last.after[1] - back],
    };
    slid[n] = { ...change, before: earlier(change.before), after: earlier(change.after) };
    slid[n + 1] = {
      ...next,
      before: [next.before[0] - back, next.before[1]],
      after: [next.after[0] - back, next.after[1]],
    };
  }
  return slid;
}

interface Kept {
  readonly before: readonly [number, number];
  readonly after: readonly [number, number];
}

/** Single words that two unrelated passages happen to share would only make both hard to read. */
function withoutScraps(kept: readonly Kept[], formerLength: number, length: number): readonly Kept[] {
  return kept.filter(({ before: [from, until], after: [start, end] }, n) => {
    if (until - from >= LOST_BETWEEN) return true;
    const last = kept[n - 1];
    const next = kept[n + 1];
    const ahead = Math.max(from - (last?.before[1] ?? 0), start - (last?.after[1] ?? 0));
    const behind = Math.max((next?.before[0] ?? formerLength) - until, (next?.after[0] ?? length) - end);
    return ahead + behind <= FAR_LONGER * (until - from);
  });
}

/** What stands between two runs, in the former text and in the present one. */
function gap(changes: Change[], [p, from]: Between, [q, start]: Between): void {
  if (from > p) changes.push({ kind: 'removed', before: [p, from], after: [q, q] });
  if (start > q) changes.push({ kind: 'added', before: [from, from], after: [q, start] });
}

type Between = readonly [number, number];

function runsOf({ to, solid, former: { units } }: Alignment): Run[] {
  const runs: Run[] = [];
  for (let p = 0; p < units.length;) {
    let length = 0;
    while (
      p + length < units.length &&
      solid[p + length] === 1 &&
      (length === 0 || to[p + length] === to[p + length - 1]! + 1)
    )
      length++;
    if (length > 0) runs.push({ p, q: to[p]!, length });
    p += Math.max(1, length);
  }
  return runs;
}

/** The heaviest runs that keep their order in both texts. O(n log n): the best weight up to each place in a Fenwick tree. */
function inOrder(runs: readonly Run[]): Run[] {
  const rank = new Map([...new Set(runs.map((r) => r.q))].sort((a, b) => a - b).map((q, n) => [q, n + 1]));
  const best = new Int32Array(rank.size + 1).fill(-1);
  const weight = new Float64Array(runs.length);
  const back = new Int32Array(runs.length).fill(-1);
  let last = -1;
  runs.forEach((run, n) => {
    const at = rank.get(run.q)!;
    let from = -1;
    for (let i = at - 1; i > 0; i -= i & -i)
      if (best[i]! >= 0 && (from < 0 || weight[best[i]!]! > weight[from]!)) from = best[i]!;
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
function wordsOf({ p, q, length }: Run, before: TextIndex, after: TextIndex): Kept | undefined {
  const a = before.folded.units;
  const b = after.folded.units;
  let start = 0;
  let end = length;
  while (start < end && (cutsWord(a, p + start) || cutsWord(b, q + start))) start++;
  while (end > start && (cutsWord(a, p + end) || cutsWord(b, q + end))) end--;
  const whole = p + start === 0 || p + end === a.length;
  if (end <= start || (!whole && lettersIn(a, p + start, p + end) < LEAST_KEPT)) return undefined;
  return {
    before: [before.folded.from[p + start]!, before.folded.from[p + end]!],
    after: [after.folded.from[q + start]!, after.folded.from[q + end]!],
  };
}

function lettersIn(units: Uint16Array, from: number, until: number): number {
  let letters = 0;
  for (let i = from; i < until; i++)
    if (isWordUnit(units[i]!)) letters++;
    else if (units[i]! >= 0x2e80) letters += 2;
  return letters;
}
