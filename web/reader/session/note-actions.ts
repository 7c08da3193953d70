import { useMemo, type RefObject } from 'react';
import { addressOf, describe, directiveFor, type AreaSpot } from '@avrelle/core/anchor';
import type { Annotation, SourceText } from '@avrelle/core/wire';
import { slotOf, type Purpose, type Slot } from '../../data/unfinished';
import { useMessages, type Messages } from '../../ui/Messages';
import { useLatest } from '../../ui/use-latest';
import { indexOf } from '../../page/text-index';
import type { Pictures } from '../drawing/use-pictures';
import type { Fields } from '../model/history';
import type { PlayerHandle } from './player-handle';
import { useSession } from './reader-context';
import type { Step } from './annotation-writer';
import type { Navigation } from './use-navigation';
import type { Placing } from './use-placing';

/** What can be done with a note. */
export interface NoteActions {
  toggle(id: string): void;
  /** Begun on the annotation as it is given; false when it did not hold. Classes are given the source first. */
  change(annotation: Annotation, fields: Fields, words: string): Promise<false | Step>;
  remove(annotations: readonly Annotation[]): void;
  /** Lets its author show on the page where it belongs. */
  choosePlace(annotation: Annotation): void;
  /** Copies an address that leads to its passage on the page it was kept from; absent where the source has none. */
  readonly copyAddress?: (annotation: Annotation) => void;
  /** Plays the recording from a moment; absent where there is none. */
  readonly playFrom?: (seconds: number) => void;
  /** Gives an area of a page or picture, with its marks, as PNG. */
  downloadArea(spot: AreaSpot): void;
  reply(parent: Annotation, note: string): Promise<boolean>;
  /** Goes to an annotation of this source; false where it is of another. */
  follow(annotationId: string): boolean;
  /** Says that words were discarded, with a way back. */
  discarded(restore: () => void): void;
  /** Where unfinished words are kept. */
  slot(purpose: Purpose): Slot;
  /** Takes it among those chosen, or out of them. */
  choose(id: string): void;
}

interface Given {
  readonly placing: Placing;
  readonly navigation: Navigation;
  readonly pictures: Pictures;
  readonly player: RefObject<PlayerHandle | null>;
}

/** One and the same while annotations come and go: the notes that are not concerned are not made anew. */
export function useNoteActions(given: Given): NoteActions {
  const { store, source, text, me, share, writer } = useSession();
  const messages = useMessages();
  const latest = useLatest(given);
  const recording = source.kind === 'audio' || source.kind === 'video';
  const { id: sourceId, address } = source;
  return useMemo(
    (): NoteActions => ({
      ...(recording ? { playFrom: (seconds) => latest.current.player.current?.playFrom(seconds) } : {}),
      ...(address ? { copyAddress: (annotation) => copyAddress(annotation, address, text, messages) } : {}),
      remove: writer.remove,
      reply: writer.reply,
      change: async (annotation, fields, words) =>
        (fields.classIds ? await share(fields.classIds) : true) && writer.change(annotation, fields, words),
      toggle: (id) => store.dispatch({ type: 'toggle', id }),
      choose: (id) => store.dispatch({ type: 'toggle chosen', id }),
      choosePlace: (annotation) => latest.current.placing.begin(annotation),
      follow: (id) => latest.current.navigation.follow(id),
      downloadArea: (spot) => latest.current.pictures.downloadArea(spot),
      slot: (purpose) => slotOf(me.id, sourceId, purpose),
      discarded: (restore) => messages.tell('Unfinished note discarded.', { label: 'Undo', run: restore }),
    }),
    [store, text, me.id, share, writer, messages, latest, recording, sourceId, address],
  );
}

function copyAddress({ place }: Annotation, address: string, text: SourceText, messages: Messages): void {
  const { start, end } = place ?? {};
  if (start == null || end == null) return;
  const index = indexOf(text);
  const found = addressOf(address, directiveFor(index, describe(index, { start, end })));
  navigator.clipboard.writeText(found).then(
    () => messages.tell('Address copied. It opens the original page at these words.'),
    () => messages.tell(found),
  );
}
