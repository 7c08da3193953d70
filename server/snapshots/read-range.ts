/** Most bytes of one answer: a player that asks for everything to the end gets it in pieces (RFC 9110, 14.2 allows it). */
const LONGEST = 2 * 1024 * 1024;

export type ByteRange = 'whole' | 'none' | { readonly start: number; readonly end: number };

/**
 * What a `Range` header asks of a file of `size` bytes, half-open (RFC 9110, 14.1.2). Headers that are not understood,
 * and several ranges at once, are answered with the whole; `none` where nothing of the file is in the range.
 */
export function readRange(header: string | undefined, size: number): ByteRange {
  const [, from, to] = /^bytes=(\d*)-(\d*)$/.exec(header?.trim() ?? '') ?? [];
  if (from === undefined || to === undefined || (from === '' && to === '')) return 'whole';
  if (from === '') return within(size - Math.min(size, Number(to)), size, size);
  if (to === '') return within(Number(from), size, size);
  return Number(to) < Number(from) ? 'whole' : within(Number(from), Number(to) + 1, size);
}

const within = (start: number, end: number, size: number): ByteRange =>
  start >= size ? 'none' : { start, end: Math.min(size, end, start + LONGEST) };
