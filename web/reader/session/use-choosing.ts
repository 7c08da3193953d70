import { useMemo } from 'react';
import type { Annotation } from '@avrelle/core/wire';
import type { Fields } from '../model/history';
import { useReader, useSession } from './reader-context';

/** Several of my annotations, chosen to be changed in one step. */
export interface Choosing {
  /** Undefined while nothing is being chosen. */
  readonly chosen: readonly Annotation[] | undefined;
  begin(): void;
  end(): void;
  all(): void;
  /** The fields each of them shall have. */
  change(fields: (annotation: Annotation) => Fields, words: string): void;
  remove(): void;
}

export function useChoosing(): Choosing {
  const { store, visible, me, writer } = useSession();
  const ids = useReader((s) => s.chosen);
  return useMemo((): Choosing => {
    const mine = visible.map((t) => t.root).filter((a) => a.author.id === me.id && !a.deleted);
    const chosen = ids && mine.filter((a) => ids.has(a.id));
    const choose = (next: ReadonlySet<string> | undefined): void => store.dispatch({ type: 'choose', chosen: next });
    return {
      chosen,
      change: (fields, words) => {
        const several = (chosen ?? []).map((a) => [a, fields(a)] as const);
        if (several.length > 0)
          void writer.changeAll(several, several.length === 1 ? words : `${several.length} marks ${words}`);
      },
      begin: () => choose(new Set()),
      end: () => choose(undefined),
      all: () => choose(new Set(mine.map((a) => a.id))),
      remove: () => {
        if (chosen?.length) writer.remove(chosen);
        choose(new Set());
      },
    };
  }, [store, visible, me, writer, ids]);
}
