import { alignTexts, type Alignment } from './alignment';
import type { Located } from './anchor';
import { wholeFormer, type Quoted } from './former';
import { judge, inText } from './locate';
import { occurrences } from './occurrences';
import type { TextIndex } from './text-index';

interface Span {
  readonly start: number;
  readonly end: number;
}

/** What became of a range between two texts that are both at hand. */
export interface Remapped {
  /** `split`: its words stand in several places now, or text was put in between. */
  readonly touched: 'unchanged' | 'edited' | 'split' | 'removed';
  /** Where its words stand now, in the order they had; empty when removed. */
  readonly parts: readonly Span[];
  /** Its one place, as for an anchor. */
  readonly located: Located;
}

/** Follows ranges from one version to the next by the alignment of the two texts. Linear in the texts, but for what was moved. */
export function remap(before: TextIndex, after: TextIndex, ranges: readonly Span[]): readonly Remapped[] {
  for (const { start, end } of ranges)
    if (!(start >= 0 && start < end && end <= before.text.length))
      throw new RangeError(
        `Cannot follow [${start}, ${end}): expected a non-empty range within 0..${before.text.length}.`,
      );
  const alignment = alignTexts(wholeFormer(before.text, ranges), after.grams);
  return ranges.map(({ start, end }, n) => {
    const quoted = alignment.former.quotes[n];
    const exact = before.text.slice(start, end);
    if (!quoted) return { touched: 'removed', parts: [], located: { state: 'lost', confidence: 0, candidates: [] } };
    const of = occurrences(before, alignment.former.units.subarray(quoted.begin, quoted.end), 2).length;
    const located = judge(after, alignment, n, {
      quote: { exact, prefix: '', suffix: '' },
      position: { start, end },
      repeats: of,
    });
    const parts = partsOf(alignment, quoted).map(({ begin, stop }) => inText(after, { begin, end: stop }, ''));
    return { touched: touchedBy(parts.length, located), parts, located };
  });
}

function touchedBy(parts: number, { state }: Located): Remapped['touched'] {
  if (parts === 0) return 'removed';
  if (parts > 1) return 'split';
  return state === 'exact' || state === 'shifted' ? 'unchanged' : 'edited';
}

/** Text put in between that parts a passage, in units; and how small a part is chance. */
const PARTS = 80;
const LEAST_PART = 3;

function partsOf({ to, solid }: Alignment, { begin, end }: Quoted): { begin: number; stop: number; solid: number }[] {
  const parts: { begin: number; stop: number; solid: number }[] = [];
  for (let p = begin; p < end; p++) {
    if (solid[p] !== 1) continue;
    const last = parts.at(-1);
    const q = to[p]!;
    if (last && q >= last.stop && q - last.stop <= PARTS) {
      last.stop = q + 1;
      last.solid++;
    } else parts.push({ begin: q, stop: q + 1, solid: 1 });
  }
  return parts.filter((part) => part.solid >= Math.min(end - begin, Math.max(LEAST_PART, (end - begin) / 10)));
}
