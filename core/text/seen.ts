import type { Piece } from './edges';
import type { Outline } from './stream';

/**
 * Of a stretch of the stream, what is seen where the main text alone is shown: the longest part without a block that
 * lies outside of it. Undefined where nothing of it is seen. The same object where all is.
 */
export function seenPart(outline: Outline, piece: Piece): Piece | undefined {
  const hidden = outline.filter((block) => block.aside && block.start < piece.end && block.end > piece.start);
  if (hidden.length === 0) return piece;
  let longest: Piece | undefined;
  let from = piece.start;
  for (const { start, end } of [...hidden, { start: piece.end, end: piece.end }]) {
    if (start - from > (longest ? longest.end - longest.start : 0)) longest = { start: from, end: start };
    from = Math.max(from, end);
  }
  return longest;
}

/**
 * A stretch that was grown to another, where the main text alone is shown: up to the next block that lies outside of it.
 * What it held before it keeps, seen or not. The same object where nothing hidden was taken in.
 */
export function grownSeen(outline: Outline, former: Piece, to: Piece): Piece {
  const after = outline.find((block) => block.aside && block.start >= former.end && block.end > block.start);
  const before = outline.findLast((block) => block.aside && block.end <= former.start && block.end > block.start);
  let { start, end } = to;
  if (after && end > after.start) {
    const last = outline.findLast((block) => !block.aside && block.end <= after.start);
    end = Math.max(former.end, last?.end ?? 0);
  }
  if (before && start < before.end) {
    const first = outline.find((block) => !block.aside && block.start >= before.end);
    start = Math.min(former.start, first?.start ?? Infinity);
  }
  return start === to.start && end === to.end ? to : { start, end };
}
