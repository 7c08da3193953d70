/** What a reader made of a unit: a name of a kind, a number, yes or no. Only whether two are the same counts. */
export type Value = string | number | boolean;
/** A row a unit, a column a reader; null where a reader made nothing of a unit. Rows may be shorter than others. */
export type Values = readonly (readonly (Value | null)[])[];

export interface Agreement {
  /** Krippendorff's α for nominal data; null where there is nothing to compare, or no two values differ. */
  readonly alpha: number | null;
  /** How many units were given. */
  readonly units: number;
  /** How many readers there are. */
  readonly readers: number;
  /** Cohen's κ; only where there are exactly two readers. */
  readonly kappa?: number | null;
}

/** Agreement on kinds, corrected for chance. */
export function agreement(values: Values): Agreement {
  const readers = Math.max(0, ...values.map((row) => row.length));
  const alpha = krippendorffsAlpha(values);
  const all = { alpha, units: values.length, readers };
  return readers === 2 ? { ...all, kappa: cohensKappa(values) } : all;
}

/**
 * Krippendorff's α for nominal data, any number of readers, values missing anywhere: 1 where all agree, 0 where they
 * agree as often as chance would have it, below where less often. Null where no unit has two values, or where all
 * values are the same: then nothing can be said of chance. After K. Krippendorff, "Computing Krippendorff's
 * Alpha-Reliability" (2011), section C.
 */
export const krippendorffsAlpha = (values: Values): number | null => alphaOf(values.map(countsOf).filter(isPairable));

/** How often the units are drawn again, and which share of the figures lies outside of the interval at each end. */
const DRAWS = 1_000;
const TAIL = 0.025;

/**
 * The 95 % interval of α by drawing the units again, with replacement: the percentile bootstrap of B. Efron, "Bootstrap
 * Methods: Another Look at the Jackknife" (1979). `random` gives 0 ≤ x < 1. Null where α is.
 */
export function alphaInterval(values: Values, random: () => number): readonly [low: number, high: number] | null {
  const units = values.map(countsOf).filter(isPairable);
  if (alphaOf(units) === null) return null;
  const drawn = Array.from({ length: DRAWS }, () =>
    alphaOf(units.map(() => units[Math.floor(random() * units.length)]!)),
  )
    .filter((alpha) => alpha !== null)
    .sort((a, b) => a - b);
  const at = (share: number): number => drawn[Math.min(drawn.length - 1, Math.floor(share * drawn.length))]!;
  return [at(TAIL), at(1 - TAIL)];
}

/** How often each value was given to a unit. */
type Counts = ReadonlyMap<Value, number>;

const isGiven = (value: Value | null): value is Value => value !== null;

function countsOf(row: readonly (Value | null)[]): Counts {
  const counts = new Map<Value, number>();
  for (const value of row.filter(isGiven)) counts.set(value, (counts.get(value) ?? 0) + 1);
  return counts;
}

const sizeOf = (counts: Counts): number => [...counts.values()].reduce((sum, n) => sum + n, 0);
/** What only one reader has seen can be compared with nothing. */
const isPairable = (counts: Counts): boolean => sizeOf(counts) >= 2;

function alphaOf(units: readonly Counts[]): number | null {
  const totals = new Map<Value, number>();
  let all = 0;
  let matches = 0;
  for (const counts of units) {
    const size = sizeOf(counts);
    all += size;
    for (const [value, n] of counts) {
      totals.set(value, (totals.get(value) ?? 0) + n);
      matches += (n * (n - 1)) / (size - 1);
    }
  }
  const byChance = [...totals.values()].reduce((sum, n) => sum + n * (n - 1), 0);
  const differing = all * (all - 1) - byChance;
  return differing === 0 ? null : ((all - 1) * matches - byChance) / differing;
}

/**
 * Cohen's κ of two readers, over the units of which both made something. Null where there is no such unit, or where both
 * always made the same of all. After J. Cohen, "A Coefficient of Agreement for Nominal Scales" (1960).
 */
export function cohensKappa(values: Values): number | null {
  const both = values.flatMap(([a = null, b = null]) => (isGiven(a) && isGiven(b) ? [[a, b] as const] : []));
  const all = both.length;
  const [first, second] = [countsOf(both.map(([a]) => a)), countsOf(both.map(([, b]) => b))];
  const agreed = both.filter(([a, b]) => a === b).length;
  const expected = [...first].reduce((sum, [value, n]) => sum + n * (second.get(value) ?? 0), 0) / Math.max(1, all);
  return all === expected ? null : (agreed - expected) / (all - expected);
}
