import { useMemo, useState } from 'react';
import { useQueries } from '@tanstack/react-query';
import type { FoundSource, SourcePage, SourceSort } from '@avrelle/core/wire';
import { PAGE, sourcesQuery, useSources } from '../data/queries';

export interface SourceList {
  readonly total: number;
  /** Where nothing was found: as it was probably meant. */
  readonly meant: string | undefined;
  /** Undefined while it is on its way. */
  row(index: number): FoundSource | undefined;
  /** Says which rows are looked at: their pages are asked for. */
  look(first: number, last: number): void;
  readonly isPending: boolean;
  readonly error: unknown;
}

/** A list of sources of any length: pages of it are asked for as they come into view. */
export function useSourceList(q: string, sort: SourceSort | undefined): SourceList {
  const asked = { q, sort };
  const first = useSources(asked);
  const [seen, setSeen] = useState<readonly [number, number]>([0, 0]);
  const total = first.data?.total ?? 0;
  const last = Math.max(0, Math.ceil(total / PAGE) - 1);
  const pages = Array.from(
    { length: Math.max(0, Math.min(seen[1], last) - Math.max(1, seen[0]) + 1) },
    (_, n) => Math.max(1, seen[0]) + n,
  );
  const more = useQueries({
    queries: pages.map((page) => sourcesQuery({ ...asked, offset: page * PAGE })),
    combine: (results) => results.map((r) => r.data),
  });
  const known = useMemo(() => {
    const rows = new Map<number, FoundSource>();
    const take = (page: number, data: SourcePage | undefined): void =>
      data?.sources.forEach((source, n) => rows.set(page * PAGE + n, source));
    take(0, first.data);
    pages.forEach((page, n) => take(page, more[n]));
    return rows;
    // `pages` is made of what is seen.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [first.data, more, seen[0], seen[1]]);
  return {
    total,
    meant: first.data?.meant,
    isPending: first.isPending,
    error: first.error,
    row: (index) => known.get(index),
    look: (from, to) => {
      const a = Math.floor(from / PAGE);
      const b = Math.floor(to / PAGE);
      if (a !== seen[0] || b !== seen[1]) setSeen([a, b]);
    },
  };
}
