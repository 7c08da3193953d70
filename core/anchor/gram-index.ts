/**
 * Every stretch of `k` units of a text, by its hash: bucket `b` holds positions `at[starts[b]] … at[starts[b + 1] - 1]`,
 * ascending. Different stretches may share a bucket, so a hit is to be compared. Built in linear time.
 */
export interface GramIndex {
  readonly k: number;
  readonly units: Uint16Array;
  readonly starts: Int32Array;
  readonly at: Int32Array;
  readonly shift: number;
}

const BASE = 0x9e3779b1 | 0;
const MIX = 0x85ebca6b | 0;

/**
 * Units a stretch must have to be rare in a text of this length by chance: twice its share of the text's information,
 * measured by how often two of its units are equal. 10 for half a million Latin letters, 5 for Han characters.
 */
export function gramLength(units: Uint16Array): number {
  if (units.length < 2) return 4;
  const counts = new Uint32Array(0x10000);
  for (let i = 0; i < units.length; i++) counts[units[i]!]!++;
  let same = 0;
  for (const count of counts) same += (count / units.length) ** 2;
  const bits = Math.max(1, -Math.log2(same));
  return Math.min(12, Math.max(4, Math.round((2 * Math.log2(units.length)) / bits)));
}

export function indexGrams(units: Uint16Array, k: number): GramIndex {
  const count = Math.max(0, units.length - k + 1);
  // A few positions to a bucket: a larger table would cost more in cache misses than in comparisons.
  const bits = Math.min(21, Math.max(8, Math.ceil(Math.log2(count + 1)) - 2));
  const shift = 32 - bits;
  const buckets = new Int32Array(count);
  const starts = new Int32Array((1 << bits) + 1);
  const rolling = new RollingHash(units, k);
  for (let i = 0; i < count; i++) {
    const bucket = bucketOf(rolling.next(), { shift });
    buckets[i] = bucket;
    starts[bucket + 1]!++;
  }
  for (let b = 1; b < starts.length; b++) starts[b]! += starts[b - 1]!;
  const fill = starts.slice();
  const at = new Int32Array(count);
  for (let i = 0; i < count; i++) at[fill[buckets[i]!]!++] = i;
  return { k, units, starts, at, shift };
}

export const bucketOf = (hash: number, { shift }: Pick<GramIndex, 'shift'>): number => Math.imul(hash, MIX) >>> shift;

/** The hash of each stretch of `k` units in turn; O(1) each. */
export class RollingHash {
  private hash = 0;
  private position: number;
  /** What the first unit of a stretch counts. */
  private readonly first: number;

  constructor(
    private readonly units: Uint16Array,
    private readonly k: number,
    start = 0,
  ) {
    let power = 1;
    for (let i = 1; i < k; i++) power = Math.imul(power, BASE);
    this.first = power;
    this.position = start;
    for (let i = start; i < start + k - 1; i++) this.push(units[i] ?? 0);
  }

  /** The hash of the stretch at the present position; moves on by one. */
  next(): number {
    this.push(this.units[this.position + this.k - 1] ?? 0);
    const hash = this.hash;
    this.hash = (hash - Math.imul(this.units[this.position]!, this.first)) | 0;
    this.position++;
    return hash;
  }

  private push(unit: number): void {
    this.hash = (Math.imul(this.hash, BASE) + unit) | 0;
  }
}
