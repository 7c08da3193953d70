import type { Piece } from '../text/edges';

/** Words that lie under a slip. */
export interface Slip {
  /** Where they begin, in UTF-16 units from the beginning of the passage; below 0 before it. */
  readonly at: number;
  readonly words: string;
}

/** How far from where they stood words are looked for, in UTF-16 units. */
const NEAR = 2_000;

/** Where the words of slips stand in a text by now, the nearest to where they were; null where they are gone. */
export const placeSlips = (text: string, passageStart: number, slips: readonly Slip[]): (Piece | null)[] =>
  slips.map(({ at, words }) => {
    const expected = passageStart + at;
    const found = nearest(text, words, expected);
    return found === undefined ? null : { start: found, end: found + words.length };
  });

function nearest(text: string, words: string, expected: number): number | undefined {
  if (words === '') return undefined;
  const first = Math.max(0, expected - NEAR);
  const last = expected + NEAR;
  let best: number | undefined;
  for (let at = text.indexOf(words, first); at >= 0 && at <= last; at = text.indexOf(words, at + 1)) {
    if (best === undefined || Math.abs(at - expected) < Math.abs(best - expected)) best = at;
    else break;
  }
  return best;
}

/** Slips over chosen words of a text; words that stand side by side lie under one. */
export function slipsOver(text: string, passageStart: number, words: readonly Piece[]): Slip[] {
  const joined: { start: number; end: number }[] = [];
  for (const { start, end } of [...words].sort((a, b) => a.start - b.start)) {
    const last = joined.at(-1);
    if (last && /^[\s\p{Pd}’'.,]*$/u.test(text.slice(last.end, start))) last.end = Math.max(last.end, end);
    else joined.push({ start, end });
  }
  return joined.map(({ start, end }) => ({ at: start - passageStart, words: text.slice(start, end) }));
}

/** A stretch of text that looks the same from end to end. */
export interface PassagePart {
  readonly text: string;
  /** It belongs to the passage. */
  readonly marked: boolean;
  /** Which slip it lies under; null where it is to be seen. */
  readonly slip: number | null;
}

/**
 * A block of text in parts, by the passage and by the slips over it. `start` is where the block begins; passage and
 * slips are ranges in the same stream.
 */
export function partsOf(
  { start, text }: { readonly start: number; readonly text: string },
  passage: Piece | null,
  slips: readonly Piece[],
): PassagePart[] {
  const edges = [...(passage ? [passage] : []), ...slips]
    .flatMap((piece) => [piece.start - start, piece.end - start])
    .filter((edge) => edge > 0 && edge < text.length);
  const cuts = [...new Set([0, ...edges, text.length])].sort((a, b) => a - b);
  return cuts.slice(0, -1).map((from, n) => {
    const at = start + from;
    const slip = slips.findIndex((one) => one.start <= at && at < one.end);
    const marked = passage !== null && passage.start <= at && at < passage.end;
    return { text: text.slice(from, cuts[n + 1]), marked, slip: slip < 0 ? null : slip };
  });
}
