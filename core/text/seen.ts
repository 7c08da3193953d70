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
