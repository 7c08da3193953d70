import { useState } from 'react';
import type { FoundSource } from '@avrelle/core/wire';
import type { Fact } from './correct-facts';
import type { Changing } from './use-changing';

/** What was written into a cell and is not in the list yet; `failed` when the server did not take it. */
export interface Written {
  readonly words: string;
  readonly failed: boolean;
}

export interface Corrections {
  /** What was written into a cell and is not in the list yet. */
  of(source: FoundSource, fact: Fact): Written | undefined;
  /** Sends it; meanwhile others can be written. False where the server did not take it. */
  send(source: FoundSource, fact: Fact, words: string): Promise<boolean>;
  /** Leaves what failed. */
  leave(source: FoundSource, fact: Fact): void;
}

const cellOf = (source: FoundSource, fact: Fact): string => `${source.id} ${fact}`;

/** Corrections on their way: the table shows them at once, and keeps the words of those that failed. */
export function useCorrections(changing: Changing): Corrections {
  const [written, setWritten] = useState<ReadonlyMap<string, Written>>(new Map());
  /** Unless something newer was written there meanwhile. */
  const put = (cell: string, to: Written | undefined, unless?: Written): void =>
    setWritten((before) => {
      if (unless && before.get(cell) !== unless) return before;
      const after = new Map(before);
      if (to) after.set(cell, to);
      else after.delete(cell);
      return after;
    });
  return {
    of: (source, fact) => written.get(cellOf(source, fact)),
    send: async (source, fact, words) => {
      const cell = cellOf(source, fact);
      const sent = { words, failed: false };
      put(cell, sent);
      const held = await changing.facts(source, { [fact]: words });
      put(cell, held ? undefined : { words, failed: true }, sent);
      return held;
    },
    leave: (source, fact) => put(cellOf(source, fact), undefined),
  };
}
