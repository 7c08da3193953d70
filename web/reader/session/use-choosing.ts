import { useCallback, useMemo, useState } from 'react';
import type { Annotation, PersonId } from '@avrelle/core/wire';
import type { Fields } from '../model/history';
import type { Thread } from '../model/thread';
import type { AnnotationWriter } from './use-annotation-writer';

/** Several of my annotations, chosen to be changed in one step. */
export interface Choosing {
  /** Undefined while nothing is being chosen. */
  readonly chosen: readonly Annotation[] | undefined;
  readonly ids: ReadonlySet<string> | undefined;
  begin(): void;
  end(): void;
  toggle(id: string): void;
  all(): void;
  /** The fields each of them shall have. */
  change(fields: (annotation: Annotation) => Fields, words: string): void;
  remove(): void;
}

export function useChoosing(threads: readonly Thread[], me: PersonId, marks: AnnotationWriter): Choosing {
  const [ids, setIds] = useState<ReadonlySet<string>>();
  const mine = useMemo(() => threads.map((t) => t.root).filter((a) => a.author.id === me && !a.deleted), [threads, me]);
  const chosen = useMemo(() => ids && mine.filter((a) => ids.has(a.id)), [ids, mine]);
  const toggle = useCallback(
    (id: string) =>
      setIds((before) => {
        const after = new Set(before);
        if (!after.delete(id)) after.add(id);
        return after;
      }),
    [],
  );
  const change = (fields: (annotation: Annotation) => Fields, words: string): void => {
    const several = (chosen ?? []).map((a) => [a, fields(a)] as const);
    if (several.length > 0)
      void marks.changeAll(several, several.length === 1 ? words : `${several.length} marks ${words}`);
  };
  return {
    chosen,
    ids,
    toggle,
    change,
    begin: () => setIds(new Set()),
    end: () => setIds(undefined),
    all: () => setIds(new Set(mine.map((a) => a.id))),
    remove: () => {
      if (chosen?.length) marks.remove(chosen);
      setIds(new Set());
    },
  };
}
