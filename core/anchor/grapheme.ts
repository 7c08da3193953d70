let segmenter: Intl.Segmenter | undefined;

/** Units before a boundary that are segmented with it: longer clusters are not met outside of tests of stacked marks. */
const AROUND = 64;
const isPlain = (unit: number): boolean => unit >= 0x20 && unit < 0x300;

/** Where the grapheme cluster begins that `at` would cut; `at` itself on a boundary. */
export function graphemeStart(text: string, at: number): number {
  return cluster(text, at)?.start ?? at;
}

/** Where the grapheme cluster ends that `at` would cut; `at` itself on a boundary. */
export function graphemeEnd(text: string, at: number): number {
  return cluster(text, at)?.end ?? at;
}

/** Where to begin to read, so that what stands at `at` is read as in the whole text. */
function beginBefore(text: string, at: number): number {
  let from = Math.max(0, at - AROUND);
  for (let back = at - 1; back > from; back--)
    if (isPlain(text.charCodeAt(back)) && isPlain(text.charCodeAt(back - 1))) from = back;
  return from > 0 && text.charCodeAt(from) >= 0xdc00 && text.charCodeAt(from) < 0xe000 ? from - 1 : from;
}

/** The cluster that holds `at` in its inside. */
function cluster(text: string, at: number): { start: number; end: number } | undefined {
  if (at <= 0 || at >= text.length) return undefined;
  if (isPlain(text.charCodeAt(at)) && isPlain(text.charCodeAt(at - 1))) return undefined;
  segmenter ??= new Intl.Segmenter('und', { granularity: 'grapheme' });
  const from = beginBefore(text, at);
  for (const { index, segment } of segmenter.segment(text.slice(from, at + AROUND))) {
    const start = from + index;
    const end = start + segment.length;
    if (start < at && at < end) return { start, end };
    if (start >= at) return undefined;
  }
  return undefined;
}
