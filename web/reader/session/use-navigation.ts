import { useMemo } from 'react';
import { useDocument } from '../document/document-context';
import { stepSentence } from '../model/sentence-step';
import { spokenSentences } from '../../page/text-index';
import { useSession } from './reader-context';

export interface Navigation {
  /** Selects the next sentence, or the one before. */
  stepSentence(direction: 1 | -1): void;
  /** Opens the next mark, or the one before. */
  stepMark(direction: 1 | -1): void;
  /** Opens an annotation and goes there. */
  goToMark(id: string): void;
  /** Goes to an annotation of this source, wherever a note leads to it; false where it is of another. */
  follow(id: string): boolean;
}

/** Below the top of the window, in pixels, before a block counts as left behind. */
const BEHIND = 4;

/** Going through a source: from sentence to sentence, from mark to mark. */
export function useNavigation(): Navigation {
  const { store, source, text, threads, visible } = useSession();
  const { page, blocks, places, scroll, reveal, revealTop, selection } = useDocument();
  return useMemo((): Navigation => {
    const goToMark = (id: string): void => {
      store.dispatch({ type: 'expand', id });
      revealTop(places.get(id)?.top);
    };
    return {
      goToMark,
      stepSentence: (direction) => {
        const from = blocks.find((b) => b.bottom > (scroll()?.top ?? 0) + BEHIND)?.block.start ?? 0;
        const next = stepSentence(spokenSentences(text, source.language, blocks), selection(), direction, from);
        if (!next || !page) return;
        page.adapter.select(next);
        reveal(next);
      },
      stepMark: (direction) => {
        const { current, expanded } = store.getState();
        const placed = visible.filter((t) => places.has(t.root.id));
        const at = placed.findIndex((t) => t.root.id === current);
        const beyond = direction === 1 ? -1 : placed.length;
        const stays = at >= 0 && !expanded.has(current!);
        const next = stays ? placed[at] : placed[(at < 0 ? beyond : at) + direction];
        if (next) goToMark(next.root.id);
      },
      follow: (id) => {
        const thread = threads.find((t) => t.root.id === id || t.replies.some((r) => r.id === id));
        if (thread) goToMark(thread.root.id);
        return thread !== undefined;
      },
    };
  }, [store, source, text, threads, visible, page, blocks, places, scroll, reveal, revealTop, selection]);
}
