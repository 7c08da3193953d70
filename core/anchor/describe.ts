import { range, wholeCodePoints, type Range } from '../text/offset';
import type { Outline } from '../text/stream';
import type { Anchor } from './anchor';

/** Units of context kept on each side of the quotation. */
const CONTEXT = 48;

/**
 * Describes a range of a stream so that it can be found again without that stream. Throws a RangeError on an empty
 * range or one that leaves the text: callers make ranges from selections and must not pass those.
 */
export function describe(text: string, given: Range, outline: Outline = []): Anchor {
  if (given.end > text.length || given.start === given.end) {
    throw new RangeError(`Cannot anchor [${given.start}, ${given.end}): expected a non-empty range within 0..${text.length}.`);
  }
  const { start, end } = wholeCodePoints(text, given);
  const before = wholeCodePoints(text, range(Math.max(0, start - CONTEXT), start));
  const after = wholeCodePoints(text, range(end, Math.min(text.length, end + CONTEXT)));
  const block = outline.find((b) => b.start <= start && start < b.end)?.path;
  return {
    quote: { exact: text.slice(start, end), prefix: text.slice(before.start, start), suffix: text.slice(end, after.end) },
    position: { start, end },
    ...(block === undefined ? {} : { block }),
  };
}
