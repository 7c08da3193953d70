import { useMemo, useRef } from 'react';
import type { Spot } from '@avrelle/core/anchor';
import { PLAIN_NOTE, type Kind } from '@avrelle/core/legend';
import { useMessages, type Messages } from '../../ui/Messages';
import type { StreamRange } from '../../page/page-frame';
import { useDocument, type DocumentView } from '../document/document-context';
import type { NoteValues } from '../model/reader-state';
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

interface Work {
  readonly session: ReaderSession;
  readonly document: DocumentView;
  readonly messages: Messages;
  readonly placing: Placing['placing'];
  readonly putHere: Placing['putHere'];
}

/** From a selection to a highlight or a note. */
export function useMarking({ placing, putHere }: Placing): Marking {
  const session = useSession();
  const document = useDocument();
  const messages = useMessages();
  /** Not for React: keys come faster than it, and nothing shows it. */
  const last = useRef<Kind>(undefined);
  return useMemo((): Marking => {
    const work = { session, document, messages, placing, putHere };
    const { kinds } = session.legend;
    const mark = (kind: Kind): void => {
      if (markAs(work, kind)) last.current = kind;
    };
    return {
      mark,
      markAgain: () => mark(kinds.find((k) => k.code === last.current?.code) ?? kinds[0]!),
      copy: () => copyWords(work),
      ...writing(work),
    };
  }, [session, document, messages, placing, putHere]);
}

const wordsOf = ({ text }: ReaderSession, { start, end }: StreamRange): string => text.text.slice(start, end);

/** Marks what is selected; words that are marked already become the kind, and open. False where nothing was marked. */
function markAs(work: Work, kind: Kind): boolean {
  const { store, writer, audience, mayWrite, announce } = work.session;
  const { page, selection } = work.document;
  const selected = selection();
  if (!selected || !mayWrite()) return false;
  if (work.placing) {
    work.putHere();
    return false;
  }
  const same = markedAlike(work.session, selected)?.root;
  if (same) {
    if (same.kind.code !== kind.code)
      void writer.change(same, { kind: kind.code }, `made a ${kind.name.toLowerCase()}`);
    store.dispatch({ type: 'expand', id: same.id });
  } else {
    page?.painter.add({ ...selected, kind });
    writer.create({ range: selected, kind, audience });
    tellHidden(work, { kind, tags: [] });
  }
  announce(`${kind.name}: ${wordsOf(work.session, selected).slice(0, 80)}`);
  page?.adapter.select(undefined);
  return true;
}

/** Notes: begun, and saved. */
function writing(work: Work): Pick<Marking, 'write' | 'writeAt' | 'writeOnAll' | 'begin' | 'save'> {
  const { store, text, writer, audience, mayWrite, announce } = work.session;
  const { page, selection, scroller } = work.document;
  const begin = (range: StreamRange, spot?: Spot, note = ''): void => {
    const draft = { range, exact: wordsOf(work.session, range), ...(spot ? { spot } : {}), note, kind: PLAIN_NOTE };
    store.dispatch({ type: 'draft', draft });
  };
  const writeAt = (spot: Spot, { start, end }: StreamRange): void => {
    if (mayWrite()) begin({ start, end }, spot);
  };
  return {
    writeAt,
    begin: (range, spot) => begin(range, spot),
    write: (letter) => {
      const range = selection();
      if (!range || work.placing || !mayWrite()) return;
      page?.painter.found(undefined);
      begin(range, undefined, letter);
      page?.adapter.select(undefined);
    },
    writeOnAll: () => {
      const first = text.outline[0];
      if (first) writeAt({ type: 'whole' }, first);
    },
    save: (values) => {
      const { range, spot } = store.getState().draft!;
      const id = writer.create({ ...values, range, spot, audience });
      store.dispatch({ type: 'draft', draft: undefined });
      store.dispatch({ type: 'expand', id });
      tellHidden(work, values);
      announce('Note saved');
      scroller.current?.querySelector('iframe')?.focus({ preventScroll: true });
    },
  };
}

function copyWords({ session, document, messages }: Work): void {
  const range = document.selection();
  if (range)
    navigator.clipboard.writeText(wordsOf(session, range)).then(
      () => messages.tell('Copied.'),
      () => messages.warn('This browser lets nothing be copied here. Use its own menu on the selected words.'),
    );
}

interface Made {
  readonly kind: Kind;
  readonly tags: readonly string[];
}

/** A mark that the filter hides is not lost: that is said, with a way to see it. */
function tellHidden({ session: { store, audience, me }, messages }: Work, made: Made): void {
  if (matchesFilter({ ...made, author: me, classIds: audience.classIds }, store.getState().filter, me.id)) return;
  messages.tell(`Marked as ${made.kind.name.toLowerCase()}. Such marks are hidden now.`, {
    label: 'Show all',
    run: () => store.dispatch({ type: 'filter', filter: { whose: 'all' } }),
  });
}

/** My own mark on the very same words. */
const markedAlike = ({ threads, me }: ReaderSession, { start, end }: StreamRange): Thread | undefined =>
  threads.find(
    ({ root, range }) =>
      root.author.id === me.id && !root.deleted && !root.anchor?.spot && range.start === start && range.end === end,
  );
