import type { Spot } from '@avrelle/core/anchor';
import type { Block, Outline } from '@avrelle/core/text';
import type { StreamRange } from '../../../page/page-frame';

/** A stretch of a recording, in seconds; a moment begins and ends at once. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** When a line of a transcript is spoken; undefined for any other block. */
export const timeOf = (block: Block): Stretch | undefined =>
  block.locator && 'from' in block.locator ? block.locator : undefined;

/** The line that is spoken at a moment, or the last before it. */
export const lineAt = (outline: Outline, seconds: number): Block | undefined =>
  outline.findLast((b) => (timeOf(b)?.from ?? Infinity) <= seconds);

/** When an annotation is heard: as it says itself, else when its words are spoken; undefined where that is not known. */
export function stretchOf(outline: Outline, range: StreamRange, spot: Spot | undefined): Stretch | undefined {
  if (spot) return spot.type === 'time' ? { from: spot.from, to: spot.to } : undefined;
  const from = secondsAt(outline, range.start);
  const to = secondsAt(outline, range.end - 1);
  return from === undefined || to === undefined ? undefined : { from, to: Math.max(from, to) };
}

/** When a character is spoken, reckoned as if each of its line took as long. */
function secondsAt(outline: Outline, offset: number): number | undefined {
  const block = outline.find((b) => b.start <= offset && offset < b.end);
  const time = block && timeOf(block);
  return time && time.from + (time.to - time.from) * ((offset - block.start) / Math.max(1, block.end - block.start));
}
