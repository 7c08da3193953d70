/**
 * Edit distance (insertions, deletions, replacements, each 1) by bit vectors: 32 rows of the table at once. The method
 * is Myers' (J. ACM 46(3), 1999) in the block form of Hyyrö (2003). Time O(⌈m / 32⌉ n).
 */
type Units = ArrayLike<number>;

const WORD = 32;

/** Which rows of the pattern hold a unit, 32 to a word. */
class Peq {
  private readonly masks = new Map<number, Int32Array>();
  private readonly none: Int32Array;

  constructor(pattern: Units, blocks: number) {
    this.none = new Int32Array(blocks);
    for (let i = 0; i < pattern.length; i++) {
      const unit = pattern[i]!;
      let mask = this.masks.get(unit);
      if (!mask) this.masks.set(unit, (mask = new Int32Array(blocks)));
      mask[i >>> 5]! |= 1 << (i & 31);
    }
  }

  of(unit: number): Int32Array {
    return this.masks.get(unit) ?? this.none;
  }
}

/** The table of differences between neighbouring rows, a column per unit of the text (and one before the first). */
class Columns {
  readonly plus: Int32Array;
  readonly minus: Int32Array;
  /** Distance of the whole pattern to the text up to each column. */
  readonly last: Int32Array;

  constructor(
    readonly blocks: number,
    columns: number,
    rows: number,
    keep: boolean,
  ) {
    const kept = keep ? columns + 1 : 1;
    this.plus = new Int32Array(kept * blocks).fill(-1, 0, blocks);
    this.minus = new Int32Array(kept * blocks);
    this.last = new Int32Array(columns + 1);
    this.last[0] = rows;
  }
}

function fill(pattern: Units, text: Units, keep: boolean): Columns {
  const blocks = Math.max(1, Math.ceil(pattern.length / WORD));
  const peq = new Peq(pattern, blocks);
  const table = new Columns(blocks, text.length, pattern.length, keep);
  const top = 1 << ((pattern.length - 1) & 31);
  for (let column = 1; column <= text.length; column++) {
    const before = keep ? (column - 1) * blocks : 0;
    const after = keep ? column * blocks : 0;
    const step = advance(table, peq.of(text[column - 1]!), before, after, top);
    table.last[column] = table.last[column - 1]! + step;
  }
  return table;
}

/** One column from the one before it; the result is how the last row changed: -1, 0 or 1. */
// eslint-disable-next-line max-params -- once for each unit of the text, where an object would be made as often
function advance(
  { blocks, plus, minus }: Columns,
  equal: Int32Array,
  before: number,
  after: number,
  top: number,
): number {
  let carry = 1;
  let change = 0;
  for (let b = 0; b < blocks; b++) {
    const pv = plus[before + b]!;
    const mv = minus[before + b]!;
    let eq = equal[b]!;
    const xv = eq | mv;
    if (carry < 0) eq |= 1;
    const xh = ((((eq & pv) + pv) | 0) ^ pv) | eq;
    let ph = mv | ~(xh | pv);
    let mh = pv & xh;
    const high = b === blocks - 1 ? top : 1 << 31;
    const fallen = (mh & high) !== 0 ? -1 : 0;
    const out = (ph & high) !== 0 ? 1 : fallen;
    ph <<= 1;
    mh <<= 1;
    if (carry < 0) mh |= 1;
    else if (carry > 0) ph |= 1;
    plus[after + b] = mh | ~(xv | ph);
    minus[after + b] = ph & xv;
    carry = out;
    change = out;
  }
  return change;
}

/** The least number of single-unit edits that turn `a` into `b`. */
export function editDistance(a: Units, b: Units): number {
  if (a.length === 0 || b.length === 0) return Math.max(a.length, b.length);
  return fill(a, b, false).last[b.length]!;
}

/** How the end of the text is to be met: used up wholly, or left where the pattern fits best. */
export type TextEnd = 'whole' | 'free';

/**
 * One best alignment of a pattern with a text: for each unit of the pattern its place in the text, matched or
 * replaced, or -1 where it has none. Memory: a quarter byte per cell.
 */
export function align(pattern: Units, text: Units, end: TextEnd = 'whole'): Int32Array {
  const places = new Int32Array(pattern.length).fill(-1);
  if (pattern.length === 0 || text.length === 0) return places;
  const table = fill(pattern, text, true);
  let column = end === 'whole' ? text.length : bestColumn(table.last);
  let row = pattern.length;
  while (row > 0 && column > 0) {
    if (pattern[row - 1] === text[column - 1]) places[--row] = --column;
    else if (goesDown(table, row, column)) row--;
    else if (replaces(table, row, column)) places[--row] = --column;
    else column--;
  }
  return places;
}

/** True where the cell is one more than the one above it: the pattern's unit may go without a place. */
const goesDown = (table: Columns, row: number, column: number): boolean => bit(table.plus, table.blocks, row, column);
/** True, where the pattern's unit has a place, if that is the text's unit here rather than an earlier one. */
const replaces = (table: Columns, row: number, column: number): boolean =>
  !bit(table.minus, table.blocks, row, column - 1);

const bit = (words: Int32Array, blocks: number, row: number, column: number): boolean =>
  (words[column * blocks + ((row - 1) >>> 5)]! & (1 << ((row - 1) & 31))) !== 0;

function bestColumn(last: Int32Array): number {
  let best = 0;
  for (let column = 1; column < last.length; column++) if (last[column]! < last[best]!) best = column;
  return best;
}
