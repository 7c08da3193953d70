import { useMemo } from 'react';
import { passageIn, useUnfinished, type Unfinished } from '../../data/unfinished';
import type { StreamRange } from '../../page/page-frame';
import { useDocument } from '../document/document-context';
import { about } from '../document/use-layout';
import { useReader, useSession } from './reader-context';

export type UnfinishedNote = Unfinished & {
  readonly range: StreamRange;
  /** Where its passage stands, as far as that is shown. */
  readonly top: number | undefined;
};

/** Notes that were begun and not saved, beside their passages. Where a version has other words, at the beginning. */
export function useUnfinishedNotes(): readonly UnfinishedNote[] {
  const { source, text, me } = useSession();
  const { blocks } = useDocument();
  /** The note that is being written is in its form. */
  const draft = useReader((s) => s.draft);
  const all = useUnfinished(me.id, source.id);
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
