import type { Range } from '@avrelle/core/text';
import type { StreamRange } from '../../page/page-frame';

/** The sentence after (or before) what is selected; without a selection the first at or after `from`. */
export function stepSentence(
  sentences: readonly Range[],
  selected: StreamRange | undefined,
  direction: 1 | -1,
  from: number,
): Range | undefined {
  if (!selected) return sentences.find((s) => s.end > from);
  if (direction === 1) return sentences.find((s) => s.start >= selected.end) ?? sentences.at(-1);
  return sentences.findLast((s) => s.end <= selected.start) ?? sentences[0];
}
