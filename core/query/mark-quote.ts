import type { Inline } from '../text/inline';
import type { Range } from '../text/offset';
import type { Marked } from './mark-words';

type Piece = Marked[number];

/**
 * A quotation with those places marked, and with its links, emphasis, code and formulas. Its lines stay lines.
 * `start` is where it begins in the stream that `inlines` are places in.
 */
export function markQuote(quote: string, places: readonly Range[], start: number, inlines: readonly Inline[]): Marked {
  const here = inlines
    .map((inline) => ({ ...inline, start: inline.start - start, end: inline.end - start }))
    .filter((inline) => inline.start <= quote.length && inline.end >= 0);
  const bounds = [...places, ...here].flatMap((piece) => [piece.start, piece.end]);
  const cuts = [...new Set([0, ...bounds.filter((at) => at > 0 && at < quote.length), quote.length])].sort(
    (a, b) => a - b,
  );
  return cuts.flatMap((at, n) => [
    ...picturesAt(here, quote, at),
    ...wordsOf(quote, [at, cuts[n + 1] ?? at], places, here),
  ]);
}

/** In the words' place stands what a picture shows, parted from them. */
function picturesAt(inlines: readonly Inline[], quote: string, at: number): Piece[] {
  const pictures = inlines.filter((inline) => inline.type === 'picture' && inline.start === at);
  const before = /\S$/.test(quote.slice(0, at)) ? ' ' : '';
  const after = /^[\p{L}\p{N}]/u.test(quote.slice(at)) ? ' ' : '';
  return pictures.map(({ type, value }) => ({
    text: `${before}[${value}]${after}`,
    hit: false,
    as: [{ type, value }],
  }));
}

function wordsOf(
  quote: string,
  [from, to]: readonly [number, number],
  places: readonly Range[],
  inlines: readonly Inline[],
): Piece[] {
  if (from === to) return [];
  const text = quote.slice(from, to).replace(/[^\S\n]+/g, ' ');
  const hit = places.some((place) => place.start <= from && place.end >= to);
  const around = inlines.filter((inline) => inline.type !== 'picture' && inline.start <= from && inline.end >= to);
  const as = around.map(({ type, value }) => ({ type, value }));
  return [{ text, hit, ...(as.length > 0 ? { as } : {}) }];
}
