import { wordsIn } from '@avrelle/core/text';
import type { InkBox, WordBox } from '@avrelle/core/ink';
import { characterDown } from '../../page/character-down';
import type { Extent, PageAdapter, StreamRange } from '../../page/page-frame';

/** How far from a line of text ink is still about it, in pixels. */
const REACH = 40;

/** A block of more characters than this is asked for the words near the ink alone: it may be a whole file. */
const LONG = 4_000;
/** How many characters before and after the ink are looked at there. */
const AROUND = 200;

const near = (blocks: readonly Extent[], { top, height }: InkBox): readonly Extent[] =>
  blocks.filter((block) => block.top < top + height + REACH && block.bottom > top - REACH);

/** Whether ink is about a line of text. */
export const isNear = (blocks: readonly Extent[], box: InkBox): boolean => near(blocks, box).length > 0;

/** The words ink may be tied to: those of the blocks it lies on or near, else of the nearest block. */
export function wordsNear(adapter: PageAdapter, blocks: readonly Extent[], box: InkBox, language: string): WordBox[] {
  const { top, height } = box;
  const bottom = top + height;
  const about = near(blocks, box);
  const away = (b: Extent): number => Math.max(b.top - bottom, top - b.bottom, 0);
  const nearest = blocks.length ? [blocks.reduce((best, b) => (away(b) < away(best) ? b : best))] : [];
  return (about.length ? about : nearest).flatMap(({ block }) =>
    wordsIn(adapter.stream.text, partNear(adapter, block, top, bottom), language || 'en').flatMap((word): WordBox[] => {
      const [first] = adapter.boxes(word);
      return first ? [{ ...word, ...first }] : [];
    }),
  );
}

function partNear({ boxes }: PageAdapter, block: StreamRange, top: number, bottom: number): StreamRange {
  const { start, end } = block;
  if (end - start <= LONG) return block;
  return {
    start: Math.max(start, characterDown(boxes, block, top - REACH) - AROUND),
    end: Math.min(end, characterDown(boxes, block, bottom + REACH) + AROUND),
  };
}
