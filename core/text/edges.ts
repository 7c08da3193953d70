import type { Outline } from './stream';

/** A stretch of the stream, `[start, end)`. */
export interface Piece {
  readonly start: number;
  readonly end: number;
}

/** The end of a passage that is moved. */
export type Edge = 'start' | 'end';
/** What it is moved by. */
export const UNITS = ['character', 'word', 'sentence', 'paragraph'] as const;
export type Unit = (typeof UNITS)[number];

/** The words of a stretch of text, by UAX #29 as the host's `Intl.Segmenter` has it. */
export function wordsIn(text: string, { start, end }: Piece, language: string): Piece[] {
  return segments(text.slice(start, end), language, 'word')
    .filter((s) => s.isWordLike)
    .map((s) => ({ start: start + s.index, end: start + s.index + s.segment.length }));
}

/** Its characters as a reader counts them. */
export function charactersIn(text: string, { start, end }: Piece, language: string): Piece[] {
  return segments(text.slice(start, end), language, 'grapheme').map((s) => ({
    start: start + s.index,
    end: start + s.index + s.segment.length,
  }));
}

const made = new Map<string, Intl.Segmenter>();
function segments(text: string, language: string, granularity: 'word' | 'grapheme'): Intl.SegmentData[] {
  const key = `${granularity} ${language}`;
  let segmenter = made.get(key);
  if (!segmenter) made.set(key, (segmenter = new Intl.Segmenter(language, { granularity })));
  return [...segmenter.segment(text)];
}

/** The block an offset stands in or at the end of, with its neighbours: far enough for one step. */
export function around(outline: Outline, offset: number): readonly Piece[] {
  const at = Math.max(
    0,
    outline.findLastIndex((b) => b.start <= offset),
  );
  return outline.slice(Math.max(0, at - 1), at + 2);
}

/**
 * A passage with one end moved to the next (1) or the one before (-1) of `pieces`: words, sentences or blocks in order.
 * A beginning moves to where a piece begins, an end to where one ends. The same range where there is none, or where
 * nothing of the passage would be left.
 */
export function stepEdge(range: Piece, edge: Edge, direction: 1 | -1, pieces: readonly Piece[]): Piece {
  const from = range[edge];
  const places = pieces.map((p) => p[edge]);
  const to = direction === 1 ? places.find((p) => p > from) : places.findLast((p) => p < from);
  return withEdge(range, edge, to);
}

/** A passage with one end at the place of `pieces` nearest to an offset. */
export function snapEdge(range: Piece, edge: Edge, offset: number, pieces: readonly Piece[]): Piece {
  let nearest: number | undefined;
  for (const piece of pieces) {
    const place = piece[edge];
    const possible = edge === 'start' ? place < range.end : place > range.start;
    if (possible && (nearest === undefined || Math.abs(place - offset) < Math.abs(nearest - offset))) nearest = place;
  }
  return withEdge(range, edge, nearest);
}

function withEdge(range: Piece, edge: Edge, to: number | undefined): Piece {
  if (to === undefined || to === range[edge]) return range;
  const moved = { ...range, [edge]: to };
  return moved.start < moved.end ? moved : range;
}
