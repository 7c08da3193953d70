import { useEffect } from 'react';
import type { AnnotationId } from '@avrelle/core/wire';
import { noteSeen } from '../../data/seen';
import { useLatest } from '../../ui/use-latest';
import { useDocument } from '../document/document-context';
import { useReader, useSession } from './reader-context';

/** What stands in view at two such ticks after another has been seen, in milliseconds. */
const TICK = 1_000;

/** Tells which marks and notes of others have stood in view. */
export function useSeenMarks(): void {
  const { visible, me } = useSession();
  const expanded = useReader((s) => s.expanded);
  const { places, scroll } = useDocument();
  const latest = useLatest({ visible, places, scroll, expanded });
  useEffect(() => {
    let before = new Set<AnnotationId>();
    const look = (): void => {
      const { visible: threads, places: at, scroll: view, expanded: open } = latest.current;
      const { top, height } = view() ?? { top: 0, height: 0 };
      const now = threads.filter(({ root }) => {
        const place = at.get(root.id);
        return place && place.top >= top && place.top < top + height;
      });
      // Answers are shown where their note is open.
      const shown = now.flatMap(({ root, replies }) => (open.has(root.id) ? [root, ...replies] : [root]));
      const ofOthers = shown.filter((a) => a.author.id !== me.id && !document.hidden);
      const ids = new Set(ofOthers.map((a) => a.id));
      noteSeen(
        me.id,
        [...ids].filter((id) => before.has(id)),
      );
      before = ids;
    };
    const timer = setInterval(look, TICK);
    return () => clearInterval(timer);
  }, [latest, me.id]);
}
