import { wordsIn } from '@avrelle/core/text';
import type { InkBox, WordBox } from '@avrelle/core/ink';
import type { Extent, PageAdapter } from '../../page/page-frame';

/** How far from a line of text ink is still about it, in pixels. */
const REACH = 40;

/** The words ink may be tied to: those of the blocks it lies on or near, else of the nearest block. */
export function wordsNear(
  adapter: PageAdapter,
  blocks: readonly Extent[],
  { top, height }: InkBox,
  language: string,
): WordBox[] {
  const bottom = top + height;
  const near = blocks.filter((b) => b.top < bottom + REACH && b.bottom > top - REACH);
  const away = (b: Extent): number => Math.max(b.top - bottom, top - b.bottom, 0);
  const nearest = blocks.length ? [blocks.reduce((best, b) => (away(b) < away(best) ? b : best))] : [];
  return (near.length ? near : nearest).flatMap(({ block }) =>
    wordsIn(adapter.stream.text, block, language || 'en').flatMap((word): WordBox[] => {
      const [box] = adapter.boxes(word);
      return box ? [{ ...word, ...box }] : [];
    }),
  );
}
