import type { Former } from './former';
import { bucketOf, RollingHash, type GramIndex } from './gram-index';
import { lowerBound } from './lower-bound';

/** Equal stretches of the former and the present text that cannot be made longer: `length` units at `p` and `q`. */
export interface Matches {
  readonly count: number;
  readonly p: Int32Array;
  readonly q: Int32Array;
  readonly length: Int32Array;
  /** The stretch of the former text that it lies in. */
  readonly stretch: Int32Array;
  /** Where the furthest of the matches up to this one ends in the former text. */
  readonly reach: Int32Array;
}

/** Occurrences followed up for one seed; of more than these the nearest to where it is expected. */
const MOST_HITS = 24;
/** Places where a whole stretch stands that are enough: among more of them nothing in it tells which. */
const ENOUGH_WHOLE = 8;
/** A place and a number below this fit in one double, by which matches are sorted. */
const MOST_MATCHES = 2 ** 24;

/** `thorough` also finds what is alike within a longer match, at the cost of a look-up for every unit. */
export type Effort = 'quick' | 'thorough';

/**
 * Finds the matches of every stretch, in order of `p`. A seed of `k` units is looked up, each occurrence is extended as
 * far as both texts agree, and the search goes on behind the longest: unchanged text costs one look-up.
 */
export function findMatches(
  { units, stretches }: Pick<Former, 'units' | 'stretches'>,
  index: GramIndex,
  effort: Effort = 'quick',
): Matches {
  const finder = new Finder(units, index, effort);
  stretches.forEach((stretch, n) => finder.search(stretch.begin, stretch.end, stretch.origin - stretch.begin, n));
  return finder.finish();
}

class Finder {
  private readonly found: number[] = [];
  /** Units the present text is ahead of the former, by the longest match met last. */
  private ahead = 0;
  /** On each diagonal, where the last match ends: it is not found twice. */
  private endOn = new Map<number, number>();

  constructor(
    private readonly units: Uint16Array,
    private readonly index: GramIndex,
    private readonly effort: Effort,
  ) {}

  search(begin: number, end: number, toFormer: number, stretch: number): void {
    const { k } = this.index;
    this.endOn.clear();
    let rolling = new RollingHash(this.units, k, begin);
    let skipped = 0;
    for (let p = begin; p + k <= end;) {
      const bucket = bucketOf(rolling.next(), this.index);
      const first = this.index.starts[bucket]!;
      const hits = this.index.starts[bucket + 1]! - first;
      const tooMany = hits > MOST_HITS && skipped < k && p + k < end;
      const reached = hits === 0 || tooMany ? 0 : this.follow(p, begin, end, first, hits, toFormer, stretch);
      skipped = tooMany ? skipped + 1 : 0;
      const next = this.effort === 'thorough' ? p + 1 : Math.max(p + 1, reached - k + 2);
      if (next !== p + 1) rolling = new RollingHash(this.units, k, next);
      p = next;
    }
  }

  /** Matches sorted by `p`. */
  finish(): Matches {
    const { found } = this;
    const count = found.length / 4;
    const order = new Float64Array(count);
    for (let n = 0; n < count; n++) order[n] = found[n * 4]! * MOST_MATCHES + n;
    order.sort();
    const p = new Int32Array(count);
    const q = new Int32Array(count);
    const length = new Int32Array(count);
    const stretch = new Int32Array(count);
    const reach = new Int32Array(count);
    for (let n = 0; n < count; n++) {
      const at = (order[n]! % MOST_MATCHES) * 4;
      p[n] = found[at]!;
      q[n] = found[at + 1]!;
      length[n] = found[at + 2]!;
      stretch[n] = found[at + 3]!;
      reach[n] = Math.max(n > 0 ? reach[n - 1]! : 0, p[n]! + length[n]!);
    }
    return { count, p, q, length, stretch, reach };
  }

  /** Extends the occurrences of the seed at `p`; the result is where the longest match ends, 0 for none. */
  // eslint-disable-next-line max-params -- once for each seed, where an object would be made as often
  private follow(
    p: number,
    begin: number,
    end: number,
    first: number,
    hits: number,
    toFormer: number,
    stretch: number,
  ): number {
    const { at } = this.index;
    const nearest = hits > MOST_HITS ? lowerBound(at, first, first + hits, p + toFormer + this.ahead) : first;
    let from = nearest - 1;
    let to = nearest;
    let reached = 0;
    let longest = 0;
    let whole = 0;
    for (let tried = Math.min(hits, MOST_HITS); tried > 0 && whole < ENOUGH_WHOLE; tried--) {
      const behind = to >= first + hits || (tried % 2 === 1 && from >= first);
      const q = at[behind ? from-- : to++]!;
      const known = this.endOn.get(q - p);
      if (known !== undefined && known > p) {
        reached = Math.max(reached, known);
        continue;
      }
      const length = this.extend(p, q, begin, end, stretch);
      if (length === 0) continue;
      const endsAt = this.endOn.get(q - p)!;
      reached = Math.max(reached, endsAt);
      if (length === end - begin) whole++;
      if (length > longest) {
        longest = length;
        this.ahead = q - p - toFormer;
      }
    }
    return reached;
  }

  // eslint-disable-next-line max-params -- once for each occurrence of each seed
  private extend(p: number, q: number, begin: number, end: number, stretch: number): number {
    const {
      units,
      index: { units: text, k },
    } = this;
    for (let i = 0; i < k; i++) if (units[p + i] !== text[q + i]) return 0;
    const floor = Math.max(begin, this.endOn.get(q - p) ?? begin);
    let back = 0;
    while (p - back > floor && q - back > 0 && units[p - back - 1] === text[q - back - 1]) back++;
    let forth = k;
    while (p + forth < end && q + forth < text.length && units[p + forth] === text[q + forth]) forth++;
    this.endOn.set(q - p, p + forth);
    this.found.push(p - back, q - back, back + forth, stretch);
    return back + forth;
  }
}
