import type { Located } from '@avrelle/core/anchor';
import type { Edited } from './edits';

/** What truly became of a passage: kept as it was, edited, removed, or so torn that nobody could say. */
export type Fate = 'kept' | 'edited' | 'removed' | 'torn';
export type Verdict = 'right' | 'wrong place' | 'imprecise' | 'missed';

interface Range {
  readonly start: number;
  readonly end: number;
}

export interface Truth extends Range {
  readonly fate: Fate;
}

/** Where each unit of the former text went; -1 where it is gone. */
export function destinations({ origin }: Edited, length: number): Int32Array {
  const to = new Int32Array(length).fill(-1);
  origin.forEach((from, at) => {
    if (from >= 0 && to[from] === -1) to[from] = at;
  });
  return to;
}

const EDITED = 0.5;

/** Of the places its units went to, the one with most of them; torn where less than half are together. */
export function truthOf(to: Int32Array, start: number, end: number): Truth {
  const length = end - start;
  let best = { first: 0, last: 0, count: 0 };
  let here = { first: -1, last: -1, count: 0 };
  for (let p = start; p < end; p++) {
    const q = to[p]!;
    if (q < 0) continue;
    if (here.count === 0 || q <= here.last || q - here.last > length + 200) here = { first: q, last: q, count: 0 };
    here.last = q;
    here.count++;
    if (here.count > best.count) best = here;
  }
  const kept = best.count / length;
  const whole = kept === 1 && best.last - best.first + 1 === length;
  const fate = whole ? 'kept' : fateOf(kept);
  return { fate, start: best.first, end: best.last + 1 };
}

function fateOf(kept: number): Exclude<Fate, 'kept'> {
  if (kept >= EDITED) return 'edited';
  return kept === 0 ? 'removed' : 'torn';
}

/** An edited passage is right where the place holds this much of what is left of it, and is not half as long again. */
const HELD = 0.8;
const LONGER = 1.5;
const SPARE = 16;

/** A copy of the passage with its surroundings (units on each side) is as good as the passage: nobody can tell them apart. */
const SURROUNDINGS = 30;

export function verdict(before: string, passage: Range, truth: Truth, { found, text }: Found): Verdict {
  if (found.state !== 'lost' && around(before, passage) === around(text, found)) return 'right';
  if (truth.fate === 'removed') return found.state === 'lost' ? 'right' : 'wrong place';
  if (found.state === 'lost') return truth.fate === 'torn' ? 'right' : 'missed';
  const common = Math.min(truth.end, found.end) - Math.max(truth.start, found.start);
  if (common <= 0) return 'wrong place';
  if (truth.fate === 'torn') return 'right';
  return isPrecise(passage, truth, found, common) ? 'right' : 'imprecise';
}

/** What was found, and in which text. */
export interface Found {
  readonly found: Located;
  readonly text: string;
}

function isPrecise(passage: Range, truth: Range & { readonly fate: string }, found: Range, common: number): boolean {
  if (truth.fate === 'kept') return truth.start === found.start && truth.end === found.end;
  const longest = LONGER * Math.max(truth.end - truth.start, passage.end - passage.start) + SPARE;
  return common >= HELD * (truth.end - truth.start) && found.end - found.start <= longest;
}

const around = (text: string, { start, end }: Range): string =>
  text.slice(Math.max(0, start - SURROUNDINGS), end + SURROUNDINGS);
