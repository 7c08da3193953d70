import { characterDown } from '../../page/character-down';
import type { PageAdapter } from '../../page/page-frame';
import type { PlacedBlock } from '../../reader/document/use-layout';

/** The character that stands so far down a page; none on an empty page. */
export function characterAt(
  boxes: PageAdapter['boxes'],
  blocks: readonly PlacedBlock[],
  top: number,
): number | undefined {
  const found = blocks.find(({ bottom }) => bottom > top) ?? blocks.at(-1);
  return found && (found.top >= top ? found.block.start : characterDown(boxes, found.block, top));
}

/** The block that is read where the window begins so far down, counted from 0. */
export function blockAt(blocks: readonly PlacedBlock[], top: number): number | null {
  const at = blocks.findIndex(({ bottom }) => bottom > top);
  return at < 0 ? null : at;
}
