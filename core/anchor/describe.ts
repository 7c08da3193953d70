import type { Anchor } from './anchor';
import { foldedAt } from './fold';
import { graphemeEnd, graphemeStart } from './grapheme';
import { occurrences } from './occurrences';
import { rivalOf } from './rival';
import type { TextIndex } from './text-index';

/** Units of context at least kept on each side, and beyond what makes the passage the only one of its kind. */
const LEAST_CONTEXT = 64;
const SPARE = 32;
/** Units of context at most, on each side. */
const MOST_CONTEXT = 400;
/** Passages with the same words that are told apart from it by context: the nearest. */
const COMPARED = 128;

interface Bounds {
  readonly start: number;
  readonly end: number;
}

/**
 * Describes a range of a text so that it can be found again without that text: its words, and on each side context
 * enough to tell it by that side alone from every other passage with these words. Grown to whole grapheme clusters.
 * Throws a RangeError on an empty, inverted or fractional range, or one that leaves the text.
 */
export function describe(index: TextIndex, given: Bounds): Anchor {
  const { text } = index;
  if (
    !Number.isInteger(given.start) ||
    !Number.isInteger(given.end) ||
    given.start < 0 ||
    given.end > text.length ||
    given.start >= given.end
  ) {
    throw new RangeError(
      `Cannot anchor [${given.start}, ${given.end}): expected a non-empty range within 0..${text.length}.`,
    );
  }
  const start = graphemeStart(text, given.start);
  const end = graphemeEnd(text, given.end);
  const known = surroundings(index, start, end);
  const from = graphemeStart(text, Math.max(0, start - known.before));
  const until = graphemeEnd(text, Math.min(text.length, end + known.after));
  return {
    quote: { exact: text.slice(start, end), prefix: text.slice(from, start), suffix: text.slice(end, until) },
    position: { start, end },
    repeats: known.repeats,
    rival: rivalOf(index.grams, known.begin, known.stop),
    ...place(index, start),
  };
}

function surroundings(
  index: TextIndex,
  start: number,
  end: number,
): { before: number; after: number; repeats: number; begin: number; stop: number } {
  const { units } = index.folded;
  const begin = foldedAt(index.folded, start);
  const stop = foldedAt(index.folded, end);
  const same = occurrences(index, units.subarray(begin, stop), COMPARED, begin);
  let left = 0;
  let right = 0;
  for (const other of same) {
    if (other === begin) continue;
    if (left === MOST_CONTEXT && right === MOST_CONTEXT) break;
    left = Math.max(left, commonBefore(units, begin, other));
    right = Math.max(right, commonAfter(units, stop, other + stop - begin));
  }
  const enough = (shared: number): number => Math.min(MOST_CONTEXT, Math.max(LEAST_CONTEXT, shared + SPARE));
  return { before: enough(left), after: enough(right), repeats: Math.max(1, same.length), begin, stop };
}

function commonBefore(units: Uint16Array, a: number, b: number): number {
  let n = 0;
  while (n < MOST_CONTEXT && a - n > 0 && b - n > 0 && units[a - n - 1] === units[b - n - 1]) n++;
  return n;
}

function commonAfter(units: Uint16Array, a: number, b: number): number {
  let n = 0;
  while (n < MOST_CONTEXT && a + n < units.length && b + n < units.length && units[a + n] === units[b + n]) n++;
  return n;
}

/** The block it begins in, by binary search in the outline, and the headings above it. */
function place({ text, outline }: TextIndex, start: number): Pick<Anchor, 'block' | 'headings'> {
  let low = 0;
  let high = outline.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (outline[middle]!.start <= start) low = middle + 1;
    else high = middle;
  }
  const block = outline[low - 1];
  if (!block) return {};
  const headings: string[] = [];
  let level = 7;
  for (let n = low - 1; n >= 0 && level > 1; n--) {
    const above = outline[n]!;
    if (above.role !== 'heading' || (above.level ?? 6) >= level) continue;
    level = above.level ?? 6;
    headings.unshift(text.slice(above.start, above.end).slice(0, 200));
  }
  return { ...(start < block.end ? { block: block.path } : {}), ...(headings.length ? { headings } : {}) };
}
