import type { Piece } from '../text/edges';
import type { Outline } from '../text/stream';

/** A paragraph or heading around a passage, or the nearest part of one that is very long. */
export interface Surrounding {
  /** Where it begins, in UTF-16 units of the stream. */
  readonly start: number;
  readonly text: string;
  readonly isHeading: boolean;
  /** Some of the passage stands in it. */
  readonly holds: boolean;
}

/** Of a paragraph that is longer, so many characters are shown before and after the passage. */
const MOST = 700;

/** The paragraphs of a passage, the one before and the one after. */
export function surroundings(text: string, outline: Outline, passage: Piece): Surrounding[] {
  const blocks = outline.filter((block) => block.end > block.start);
  const first = blocks.findIndex((block) => block.end > passage.start);
  if (first < 0) return [];
  const after = blocks.findIndex((block) => block.start >= passage.end);
  const last = after < 0 ? blocks.length - 1 : after;
  const wanted = blocks.slice(Math.max(0, first - 1), last + 1);
  return (wanted.length > 0 ? wanted : [blocks[first]!]).map(({ start, end, role }) => {
    const shown = cut(text, { start, end }, passage);
    return {
      start: shown.start,
      text: text.slice(shown.start, shown.end),
      isHeading: role === 'heading',
      holds: start < passage.end && end > passage.start,
    };
  });
}

/** The part of a block that is near a passage, between words. */
function cut(text: string, { start, end }: Piece, passage: Piece): Piece {
  const from = Math.max(start, Math.min(passage.start, end) - MOST);
  const to = Math.min(end, Math.max(passage.end, start) + MOST);
  const space = text.indexOf(' ', from);
  const lastSpace = text.lastIndexOf(' ', to);
  return {
    start: from > start && space >= 0 && space < passage.start ? space + 1 : from,
    end: to < end && lastSpace > passage.end ? lastSpace : to,
  };
}
