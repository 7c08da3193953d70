import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import type { Spot } from '@avrelle/core/anchor';
import { PLAIN_NOTE, type Kind } from '@avrelle/core/key';
import type { Annotation, PersonId } from '@avrelle/core/wire';
import { useMessages } from '../../ui/Messages';
import type { Key } from './key';
import type { NoteValues } from '../regions/margin/NoteForm';
import type { StreamRange } from '../../page/page-frame';
import type { Thread } from '../model/thread';
import type { AnnotationWriter } from './use-annotation-writer';
import type { OpenPage } from '../document/use-page';

export interface Draft {
  readonly range: StreamRange;
  /** The words of the range. */
  readonly exact: string;
  readonly spot?: Spot;
  readonly note: string;
  readonly kind: Kind;
}

interface Given {
  readonly page: OpenPage | undefined;
  readonly text: string;
  readonly marks: AnnotationWriter;
  readonly threads: readonly Thread[];
  readonly me: PersonId;
  readonly key: Key;
  readonly audience: readonly string[];
  readonly scroller: RefObject<HTMLElement | null>;
  /** An annotation that is being put in its place takes the selection instead. */
  readonly placing: Annotation | undefined;
  putHere(): void;
  mayWrite(): boolean;
  open(id: string): void;
  /** Somebody begins to write: what hides the margin gives way. */
  beginning(): void;
  /** Where a mark like this would not show now, shows it. */
  hidden(mark: { readonly kind: Kind; readonly tags: readonly string[] }): (() => void) | undefined;
  /** Tells what was done to who does not see it. */
  say(words: string): void;
}

/** From a selection to a highlight or a note. */
export function useMarking({
  page,
  text,
  marks,
  threads,
  me,
  key,
  audience,
  scroller,
  placing,
  putHere,
  mayWrite,
  open,
  beginning,
  hidden,
  say,
}: Given) {
  const messages = useMessages();
  const [draft, setDraft] = useState<Draft>();
  /** Not for React: keys come faster than it, and nothing shows it. */
  const last = useRef<Kind>(undefined);

  /** Asked of the page itself: keys come faster than React hears of a selection. */
  const selection = (): StreamRange | undefined => page?.adapter.selection();
  const tellHidden = (made: { readonly kind: Kind; readonly tags: readonly string[] }): void => {
    const show = hidden(made);
    if (show)
      messages.tell(`Marked as ${made.kind.name.toLowerCase()}. Such marks are hidden now.`, {
        label: 'Show all',
        run: show,
      });
  };
  const mark = (kind: Kind): void => {
    const selected = selection();
    if (!selected || !mayWrite()) return;
    if (placing) return putHere();
    const same = threads.find(
      ({ root, range }) =>
        root.author.id === me &&
        !root.deleted &&
        !root.anchor?.spot &&
        range.start === selected.start &&
        range.end === selected.end,
    );
    if (same && same.root.kind.code !== kind.code)
      void marks.change(same.root, { kind: kind.code }, `made a ${kind.name.toLowerCase()}`);
    if (same) open(same.root.id);
    else {
      page?.painter.add({ ...selected, kind });
      marks.create({ range: selected, kind, classIds: audience });
      tellHidden({ kind, tags: [] });
    }
    last.current = kind;
    say(`${kind.name}: ${text.slice(selected.start, selected.end).slice(0, 80)}`);
    page?.adapter.select(undefined);
  };
  /** As the last kind that was used, while it is one of the Key. */
  const markAgain = (): void => mark(key.kinds.find((k) => k.code === last.current?.code) ?? key.kinds[0]!);
  const write = (note: string, range = selection()): void => {
    if (!range || placing || !mayWrite()) return;
    page?.painter.found(undefined);
    beginning();
    setDraft({ range, exact: text.slice(range.start, range.end), note, kind: PLAIN_NOTE });
    page?.adapter.select(undefined);
  };
  /** Opens a note; what was begun there before is in its slot. */
  const begin = (range: StreamRange, spot?: Spot): void => {
    beginning();
    setDraft({
      range,
      exact: text.slice(range.start, range.end),
      ...(spot ? { spot } : {}),
      note: '',
      kind: PLAIN_NOTE,
    });
  };
  /** A note on something that is no words, tied to the block it stands in or the words it is about. */
  const writeAt = (spot: Spot, block: StreamRange): void => {
    if (mayWrite()) begin({ start: block.start, end: block.end }, spot);
  };
  const setDown = (values: NoteValues): void => {
    const id = marks.create({ ...values, range: draft!.range, spot: draft!.spot, classIds: audience });
    setDraft(undefined);
    open(id);
    tellHidden(values);
    say('Note set down');
    scroller.current?.querySelector('iframe')?.focus({ preventScroll: true });
  };
  const copy = (): void => {
    const range = selection();
    if (range)
      navigator.clipboard.writeText(text.slice(range.start, range.end)).then(
        () => messages.tell('Copied.'),
        () => messages.warn('This browser lets nothing be copied here. Use its own menu on the selected words.'),
      );
  };
  return {
    draft,
    selection,
    mark,
    markAgain,
    write,
    writeAt,
    begin,
    setDown,
    copy,
    leaveDraft: useCallback(() => setDraft(undefined), []),
  };
}

/** How long a selection made without a pointer (by the handles of a tablet) must rest before it counts as made, in milliseconds. */
const RESTS = 700;

/** While on, what is selected is marked as soon as the pointer lets go; with Alt held it is left alone. */
export function useMarkAsISelect(page: OpenPage | undefined, on: boolean, mark: () => void): void {
  const latest = useRef(mark);
  useEffect(() => {
    latest.current = mark;
  });
  useEffect(() => {
    if (!page || !on) return;
    const { document } = page.adapter;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let touching = false;
    const onUp = (event: MouseEvent): void => {
      if (!event.altKey) latest.current();
    };
    const onTouch = (event: PointerEvent): void => {
      touching = event.pointerType !== 'mouse';
    };
    const onSelection = (): void => {
      clearTimeout(timer);
      if (touching) timer = setTimeout(() => latest.current(), RESTS);
    };
    document.addEventListener('mouseup', onUp);
    document.addEventListener('pointerdown', onTouch);
    document.addEventListener('selectionchange', onSelection);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('mouseup', onUp);
      document.removeEventListener('pointerdown', onTouch);
      document.removeEventListener('selectionchange', onSelection);
    };
  }, [page, on]);
}
