import { useMemo, useRef } from 'react';
import type { Spot } from '@avrelle/core/anchor';
import { PLAIN_NOTE, type Kind } from '@avrelle/core/key';
import { useMessages } from '../../ui/Messages';
import type { StreamRange } from '../../page/page-frame';
import { useDocument } from '../document/document-context';
import type { NoteValues } from '../regions/margin/NoteForm';
import { matchesFilter, type Thread } from '../model/thread';
import { useSession, type ReaderSession } from './reader-context';
import type { Placing } from './use-placing';

export interface Marking {
  /** Marks the selected words as a kind; those that are marked so far become it. */
  mark(kind: Kind): void;
  /** As the last kind that was used, while it is one of the Legend. */
  markAgain(): void;
  /** Begins a note beside the selected words. */
  write(letter: string): void;
  /** A note on something that is no words, tied to the block it stands in or the words it is about. */
  writeAt(spot: Spot, block: StreamRange): void;
  writeOnAll(): void;
  /** Opens a note; what was begun there before is in its slot. */
  begin(range: StreamRange, spot?: Spot): void;
  save(values: NoteValues): void;
  copy(): void;
}

/** From a selection to a highlight or a note. */
export function useMarking({ placing, putHere }: Placing): Marking {
  const session = useSession();
  const document = useDocument();
  const messages = useMessages();
  /** Not for React: keys come faster than it, and nothing shows it. */
  const last = useRef<Kind>(undefined);
  return useMemo((): Marking => {
    const { store, text, writer, audience, mayWrite, announce, legend } = session;
    const { page, selection, scroller } = document;
    const wordsOf = ({ start, end }: StreamRange): string => text.text.slice(start, end);
    const begin = (range: StreamRange, spot?: Spot, note = ''): void => {
      const draft = { range, exact: wordsOf(range), ...(spot ? { spot } : {}), note, kind: PLAIN_NOTE };
      store.dispatch({ type: 'draft', draft });
    };
    const tellHidden = (made: Made): void => {
      const show = hiddenBy(session, made);
      if (show) messages.tell(`Marked as ${made.kind.name.toLowerCase()}. Such marks are hidden now.`, show);
    };
    const setDown = (kind: Kind, selected: StreamRange): void => {
      const same = markedAlike(session, selected);
      if (same && same.root.kind.code !== kind.code)
        void writer.change(same.root, { kind: kind.code }, `made a ${kind.name.toLowerCase()}`);
      if (same) return store.dispatch({ type: 'expand', id: same.root.id });
      page?.painter.add({ ...selected, kind });
      writer.create({ range: selected, kind, classIds: audience });
      tellHidden({ kind, tags: [] });
    };
    const mark = (kind: Kind): void => {
      const selected = selection();
      if (!selected || !mayWrite()) return;
      if (placing) return putHere();
      setDown(kind, selected);
      last.current = kind;
      announce(`${kind.name}: ${wordsOf(selected).slice(0, 80)}`);
      page?.adapter.select(undefined);
    };
    const writeAt = (spot: Spot, block: StreamRange): void => {
      if (mayWrite()) begin({ start: block.start, end: block.end }, spot);
    };
    return {
      mark,
      markAgain: () => mark(legend.kinds.find((k) => k.code === last.current?.code) ?? legend.kinds[0]!),
      write: (letter) => {
        const range = selection();
        if (!range || placing || !mayWrite()) return;
        page?.painter.found(undefined);
        begin(range, undefined, letter);
        page?.adapter.select(undefined);
      },
      writeAt,
      writeOnAll: () => {
        const first = text.outline[0];
        if (first) writeAt({ type: 'whole' }, first);
      },
      begin,
      save: (values) => {
        const { range, spot } = store.getState().draft!;
        const id = writer.create({ ...values, range, spot, classIds: audience });
        store.dispatch({ type: 'draft', draft: undefined });
        store.dispatch({ type: 'expand', id });
        tellHidden(values);
        announce('Note set down');
        scroller.current?.querySelector('iframe')?.focus({ preventScroll: true });
      },
      copy: () => {
        const range = selection();
        if (range)
          navigator.clipboard.writeText(wordsOf(range)).then(
            () => messages.tell('Copied.'),
            () => messages.warn('This browser lets nothing be copied here. Use its own menu on the selected words.'),
          );
      },
    };
  }, [session, document, messages, placing, putHere]);
}

interface Made {
  readonly kind: Kind;
  readonly tags: readonly string[];
}

/** How to show a mark like this, where the filter hides it. */
function hiddenBy({ store, audience, me }: ReaderSession, made: Made) {
  if (matchesFilter({ ...made, author: me, classIds: audience }, store.getState().filter, me.id)) return undefined;
  return { label: 'Show all', run: () => store.dispatch({ type: 'filter', filter: { whose: 'all' } }) };
}

/** My own mark on the very same words. */
const markedAlike = ({ threads, me }: ReaderSession, { start, end }: StreamRange): Thread | undefined =>
  threads.find(
    ({ root, range }) =>
      root.author.id === me.id && !root.deleted && !root.anchor?.spot && range.start === start && range.end === end,
  );
