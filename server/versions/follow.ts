import type { PersonId } from '@avrelle/core/wire';
import { indexText, locateAll, remap, type Anchor, type Located } from '@avrelle/core/anchor';
import { addSpan, type Spans } from '@avrelle/core/reading';
import type { Outline } from '@avrelle/core/text';

export interface Marked {
  readonly id: string;
  /** Where it stands in the former version; null when it is lost there. */
  readonly range: { readonly start: number; readonly end: number } | null;
  readonly anchor: Anchor;
}

/** What one person has read of the former version, and where they were. */
export interface Read {
  readonly personId: PersonId;
  readonly spans: Spans;
  readonly position: number;
}

export interface Follow {
  readonly before: string;
  readonly after: string;
  readonly outline: Outline;
  readonly marks: readonly Marked[];
  readonly reads: readonly Read[];
}

export interface Followed {
  readonly marks: readonly { readonly id: string; readonly located: Located }[];
  readonly reads: readonly Read[];
}

/** Units behind a reader's place by which the place is found again. */
const AHEAD = 200;

/** Follows annotations and what was read from one version to the next; what was lost is looked for by its own anchor. */
export function follow({ before, after, outline, marks, reads }: Follow): Followed {
  const former = indexText(before);
  const index = indexText(after, outline);
  const placed = marks.filter((m) => m.range !== null);
  const spans = reads.flatMap((read) =>
    read.spans.map(([start, end]) => ({ start, end: Math.min(end, before.length) })).filter((s) => s.end > s.start),
  );
  const positions = reads.map(({ position }) => ({
    start: Math.min(position, Math.max(0, before.length - 1)),
    end: Math.min(before.length, position + AHEAD),
  }));
  const remapped = before
    ? remap(former, index, [...placed.map((m) => m.range!), ...spans, ...positions.filter((p) => p.end > p.start)])
    : [];
  const located = new Map(placed.map((mark, n) => [mark.id, remapped[n]!.located]));
  let next = placed.length;
  const read = reads.map((r) => ({
    ...r,
    spans: r.spans
      .filter(([start, end]) => Math.min(end, before.length) > start)
      .reduce<Spans>((all) => remapped[next++]!.parts.reduce((sum, p) => addSpan(sum, p.start, p.end), all), []),
  }));
  return {
    marks: marks.map(({ id, anchor }) => ({ id, located: located.get(id) ?? locateAll(index, [anchor])[0]! })),
    reads: read.map((r, n) =>
      positions[n]!.end > positions[n]!.start
        ? { ...r, position: remapped[next++]!.parts[0]?.start ?? Math.min(r.position, after.length) }
        : r,
    ),
  };
}
