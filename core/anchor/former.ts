import type { Anchor } from './anchor';
import { fold, foldedAt, unitsOf, type Folded } from './fold';

/**
 * What is known of the text that anchors were made in: their quotations and contexts, laid out at their positions.
 * Where they overlap and agree they become one stretch, so that neighbours share their evidence and their cost.
 */
export interface Former {
  /** All stretches folded, one after the other. */
  readonly units: Uint16Array;
  /** In order of their place in the former text. */
  readonly stretches: readonly Stretch[];
  /** Where each anchor's quotation lies in `units`, by the anchors' order; undefined for one without words. */
  readonly quotes: readonly (Quoted | undefined)[];
}

export interface Stretch {
  /** In `units`, half-open. */
  readonly begin: number;
  readonly end: number;
  /** Offset in the former text of its first unit. */
  readonly origin: number;
}

export interface Quoted {
  readonly begin: number;
  readonly end: number;
  readonly stretch: number;
}

interface Piece {
  readonly origin: number;
  /** In the buffer of raw units. */
  readonly begin: number;
  end: number;
}

/** Lays out the anchors. Time and memory: linear in the units of their quotations and contexts, but for sorting. */
export function layOut(anchors: readonly Anchor[]): Former {
  const order = anchors.map((_, n) => n).sort((a, b) => beginOf(anchors[a]!) - beginOf(anchors[b]!) || a - b);
  const buffer = new Uint16Array(
    anchors.reduce((sum, { quote }) => sum + quote.prefix.length + quote.exact.length + quote.suffix.length, 0),
  );
  const pieces: Piece[] = [];
  const pieceOf = new Int32Array(anchors.length);
  const rawOf = new Int32Array(anchors.length);
  let used = 0;
  for (const n of order) {
    const { quote } = anchors[n]!;
    const begin = beginOf(anchors[n]!);
    const words = [quote.prefix, quote.exact, quote.suffix];
    const last = pieces.at(-1);
    const at = last && begin <= last.origin + (last.end - last.begin) ? last.begin + (begin - last.origin) : -1;
    if (last && at >= last.begin && agrees(buffer, at, last.end, words)) {
      used = last.end = write(buffer, last.end, words, last.end - at);
    } else {
      pieces.push({ origin: begin, begin: used, end: write(buffer, used, words, 0) });
      used = pieces.at(-1)!.end;
    }
    const piece = pieces.at(-1)!;
    pieceOf[n] = pieces.length - 1;
    rawOf[n] = piece.begin + (begin - piece.origin) + quote.prefix.length;
  }
  return folded(
    buffer,
    pieces,
    (n) =>
      anchors[n]!.quote.exact.length > 0
        ? { piece: pieceOf[n]!, begin: rawOf[n]!, length: anchors[n]!.quote.exact.length }
        : undefined,
    anchors.length,
  );
}

/** The whole of a former text as one stretch, with ranges of it. */
export function wholeFormer(text: string, ranges: readonly { readonly start: number; readonly end: number }[]): Former {
  const buffer = unitsOf(text);
  return folded(
    buffer,
    [{ origin: 0, begin: 0, end: buffer.length }],
    (n) => ({ piece: 0, begin: ranges[n]!.start, length: ranges[n]!.end - ranges[n]!.start }),
    ranges.length,
  );
}

const beginOf = ({ quote, position }: Anchor): number => position.start - quote.prefix.length;

/** Units compared of each part: text that lies elsewhere differs in most of its units. */
const SAMPLE = 24;

/** True when the words say the same as what is there already, as far as both go. */
function agrees(buffer: Uint16Array, at: number, end: number, words: readonly string[]): boolean {
  let begin = at;
  for (const part of words) {
    const both = Math.min(part.length, end - begin);
    const stride = Math.max(1, Math.floor(both / SAMPLE));
    for (let i = 0; i < both; i += stride) if (buffer[begin + i] !== part.charCodeAt(i)) return false;
    begin += part.length;
  }
  return true;
}

/** Writes the words so that their first `skip` units come before `at`, where they stand already; the result is where they end. */
function write(buffer: Uint16Array, at: number, words: readonly string[], skip: number): number {
  let begin = at - skip;
  for (const part of words) {
    for (let i = Math.max(0, at - begin); i < part.length; i++) buffer[begin + i] = part.charCodeAt(i);
    begin += part.length;
  }
  return Math.max(at, begin);
}

function folded(
  buffer: Uint16Array,
  pieces: readonly Piece[],
  rawOf: (n: number) => { piece: number; begin: number; length: number } | undefined,
  count: number,
): Former {
  const parts: Folded[] = pieces.map(({ begin, end }) => fold(buffer, begin, end));
  const stretches: Stretch[] = [];
  let length = 0;
  parts.forEach(({ units }, n) => {
    stretches.push({ begin: length, end: length + units.length, origin: pieces[n]!.origin });
    length += units.length;
  });
  const units = new Uint16Array(length);
  parts.forEach((part, n) => units.set(part.units, stretches[n]!.begin));
  const quotes = Array.from({ length: count }, (_, n): Quoted | undefined => {
    const raw = rawOf(n);
    if (!raw) return undefined;
    const part = parts[raw.piece]!;
    const base = stretches[raw.piece]!.begin;
    const begin = base + foldedAt(part, raw.begin);
    const end = base + foldedAt(part, raw.begin + raw.length);
    return end > begin ? { begin, end, stretch: raw.piece } : undefined;
  });
  return { units, stretches, quotes };
}
