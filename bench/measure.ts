export { seeded } from '@avrelle/core/random';
export { prose, word } from '../demo/make/prose';

export interface Result {
  readonly work: string;
  readonly value: number;
  readonly unit: string;
  /** What should hold, in words; null where there is no bar. */
  readonly bar: string | null;
  readonly holds: boolean | null;
}

export type Bench = () => Promise<readonly Result[]> | readonly Result[];

export const atMost = (work: string, value: number, unit: string, limit: number): Result => ({
  work,
  value: round(value),
  unit,
  bar: `≤ ${limit} ${unit}`,
  holds: value <= limit,
});
export const atLeast = (work: string, value: number, unit: string, limit: number): Result => ({
  work,
  value: round(value),
  unit,
  bar: `≥ ${limit} ${unit}`,
  holds: value >= limit,
});
export const figure = (work: string, value: number, unit: string): Result => ({
  work,
  value: round(value),
  unit,
  bar: null,
  holds: null,
});

const round = (value: number): number => (value >= 100 ? Math.round(value) : Math.round(value * 100) / 100);

/** Milliseconds of one run of `work`. */
export async function time(work: () => unknown): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** By nearest rank. */
export const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.max(0, Math.ceil(values.length * share) - 1)]!;

const median = (values: readonly number[]): number => percentile(values, 0.5);

/**
 * Milliseconds of the same work done by us and bare, in turn (ours, bare, ours, bare …), so that a machine that swings
 * swings for both: the medians of each and their ratio, which is what counts.
 */
export async function inTurn(
  rounds: number,
  ours: () => Promise<number>,
  bare: () => Promise<number>,
): Promise<{ readonly ours: number; readonly bare: number; readonly ratio: number }> {
  const times = { ours: [] as number[], bare: [] as number[] };
  for (let round = 0; round < rounds; round++) {
    times.ours.push(await ours());
    times.bare.push(await bare());
  }
  const both = { ours: median(times.ours), bare: median(times.bare) };
  return { ...both, ratio: both.ours / both.bare };
}
