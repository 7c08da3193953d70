/** A position in a text stream, in UTF-16 code units. Branded, because a node offset is easily mistaken for it. */
export type Offset = number & { readonly __offset: 'stream' };

/** Half-open `[start, end)` in a text stream. */
export interface Range {
  readonly start: Offset;
  readonly end: Offset;
}

/** Marks a number as a stream offset. Throws on anything but a non-negative integer. */
export function offset(n: number): Offset {
  if (!Number.isInteger(n) || n < 0) throw new RangeError(`A stream offset is a non-negative integer, not ${n}.`);
  return n as Offset;
}

export function range(start: number, end: number): Range {
  if (end < start) throw new RangeError(`A range ends at or after its start, not [${start}, ${end}).`);
  return { start: offset(start), end: offset(end) };
}

const isHighSurrogate = (unit: number): boolean => unit >= 0xd800 && unit <= 0xdbff;
const isLowSurrogate = (unit: number): boolean => unit >= 0xdc00 && unit <= 0xdfff;

/** True where `at` would cut a surrogate pair in two. */
export function splitsPair(text: string, at: number): boolean {
  return at > 0 && at < text.length && isLowSurrogate(text.charCodeAt(at)) && isHighSurrogate(text.charCodeAt(at - 1));
}

/** The same range, grown outwards where an end falls inside a surrogate pair. */
export function wholeCodePoints(text: string, given: Range): Range {
  const start = splitsPair(text, given.start) ? given.start - 1 : given.start;
  const end = splitsPair(text, given.end) ? given.end + 1 : given.end;
  return start === given.start && end === given.end ? given : range(start, end);
}

export const overlaps = (a: Range, b: Range): boolean => a.start < b.end && b.start < a.end;
export const contains = (outer: Range, at: number): boolean => at >= outer.start && at < outer.end;
