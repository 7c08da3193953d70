import type { PageAdapter, StreamRange } from './page-frame';

/** What is asked of at once: between two words there may be some that have no box. */
const PROBE = 24;

/**
 * The first character of a passage that stands, or reaches, below a height (pixels as shown); its last where none does.
 * Asks for as many boxes as halving takes: a block may be a file of half a million characters.
 */
export function characterDown(boxes: PageAdapter['boxes'], { start, end }: StreamRange, height: number): number {
  let low = start;
  let high = end - 1;
  while (low < high) {
    const middle = (low + high) >>> 1;
    const [box] = boxes({ start: middle, end: Math.min(middle + PROBE, end) });
    if (box && box.top + box.height <= height) low = middle + 1;
    else high = middle;
  }
  return low;
}
