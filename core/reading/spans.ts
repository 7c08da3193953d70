/** Stretches of a stream, sorted, apart from each other, as `[start, end)` pairs. */
export type Spans = readonly (readonly [number, number])[];

/** The spans with `[start, end)` added; the same object when it was covered already. */
export function addSpan(spans: Spans, start: number, end: number): Spans {
  if (end <= start || spans.some(([s, e]) => s <= start && end <= e)) return spans;
  let from = start;
  let to = end;
  const apart: [number, number][] = [];
  for (const [s, e] of spans) {
    if (e < start || s > end) apart.push([s, e]);
    else {
      from = Math.min(from, s);
      to = Math.max(to, e);
    }
  }
  return [...apart, [from, to] as [number, number]].sort((a, b) => a[0] - b[0]);
}

export const covered = (spans: Spans): number => spans.reduce((sum, [s, e]) => sum + e - s, 0);
export const covers = (spans: Spans, start: number, end: number): boolean =>
  spans.some(([s, e]) => s <= start && end <= e);

/** The spans without `[start, end)`; the same object when none of it was in them. */
export function removeSpan(spans: Spans, start: number, end: number): Spans {
  if (end <= start || !spans.some(([s, e]) => s < end && e > start)) return spans;
  return spans.flatMap(([s, e]): [number, number][] =>
    e <= start || s >= end
      ? [[s, e]]
      : [...(s < start ? [[s, start] as [number, number]] : []), ...(e > end ? [[end, e] as [number, number]] : [])],
  );
}

/** The share from which on a source counts as read, whatever its state. */
export const READ = 0.97;
export const isRead = (share: number): boolean => share >= READ;

/** The share of a source of that many UTF-16 units that the spans cover, 0 to 1, to four places. */
export const shareRead = (spans: Spans, length: number): number =>
  Math.min(1, Math.round((covered(spans) / Math.max(1, length)) * 10_000) / 10_000);
