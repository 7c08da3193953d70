import { useMemo } from 'react';
import type { SourceDetail, SourceText, PersonId } from '@avrelle/core/wire';
import { passageIn, useUnfinished } from '../../data/unfinished';
import type { UnfinishedNote } from '../regions/margin/MarginColumn';
import { about, type PlacedBlock } from '../document/use-layout';
import type { Draft } from './use-marking';

interface Given {
  readonly source: SourceDetail;
  readonly text: SourceText;
  readonly me: PersonId;
  readonly blocks: readonly PlacedBlock[];
  /** The note that is being written: it is in its form. */
  readonly draft: Draft | undefined;
}

/** Notes that were begun and not saved, beside their passages. Where a version has other words, at the beginning. */
export function useUnfinishedNotes({ source, text, me, blocks, draft }: Given): readonly UnfinishedNote[] {
  const all = useUnfinished(me, source.id);
  return useMemo(
    () =>
      all.flatMap((note): UnfinishedNote[] => {
        const first = text.outline[0];
        const range = passageIn(text.text, note) ?? (first && { start: first.start, end: first.end });
        if (note.purpose.type !== 'note' || !range) return [];
        const atHand =
          draft &&
          draft.range.start === range.start &&
          draft.range.end === range.end &&
          JSON.stringify(draft.spot) === JSON.stringify(note.purpose.spot);
        return atHand ? [] : [{ ...note, range, top: about(blocks, range.start)?.top }];
      }),
    [all, text, blocks, draft],
  );
}
