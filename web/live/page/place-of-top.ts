import type { PlacedBlock } from '../../reader/document/use-layout';

/** The character that stands about so far down a page, as far into its block as that is down it; none on an empty page. */
export function characterAt(blocks: readonly PlacedBlock[], top: number): number | undefined {
  const found = blocks.find(({ bottom }) => bottom > top) ?? blocks.at(-1);
  if (!found) return undefined;
  const { block } = found;
  const share = Math.min(1, Math.max(0, (top - found.top) / Math.max(1, found.bottom - found.top)));
  return Math.min(block.end - 1, block.start + Math.floor(share * (block.end - block.start)));
}

/** The block that is read where the window begins so far down, counted from 0. */
export function blockAt(blocks: readonly PlacedBlock[], top: number): number | null {
  const at = blocks.findIndex(({ bottom }) => bottom > top);
  return at < 0 ? null : at;
}
