import { useCallback, useMemo, useState } from 'react';
import type { FoundSource } from '@avrelle/core/wire';

export interface Chosen {
  readonly rows: readonly FoundSource[];
  has(id: string): boolean;
  toggle(row: FoundSource): void;
  set(rows: readonly FoundSource[]): void;
  none(): void;
}

/** The sources that are chosen, to be changed together; they stay so while one looks at others. */
export function useChosen(): Chosen {
  const [chosen, setChosen] = useState<ReadonlyMap<string, FoundSource>>(new Map());
  const toggle = useCallback(
    (row: FoundSource) =>
      setChosen((before) => {
        const after = new Map(before);
        if (!after.delete(row.id)) after.set(row.id, row);
        return after;
      }),
    [],
  );
  const set = useCallback((rows: readonly FoundSource[]) => setChosen(new Map(rows.map((r) => [r.id, r]))), []);
  const none = useCallback(() => setChosen((before) => (before.size ? new Map() : before)), []);
  return useMemo(
    () => ({ rows: [...chosen.values()], has: (id) => chosen.has(id), toggle, set, none }),
    [chosen, toggle, set, none],
  );
}
