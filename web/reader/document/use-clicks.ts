import { useCallback, useEffect } from 'react';
import { laidAt } from '../drawing/laid-at';
import { nextHit, threadsAt } from '../../page/hit';
import type { Box } from '../../page/page-frame';
import type { Thread } from '../model/thread';
import { openIn } from '../model/reader-state';
import { useSession } from '../session/reader-context';
import { useDocument } from './document-context';

/** So many pixels beside a line still mean its words. */
const NEAR = 5;

/**
 * A click on a mark or on something drawn opens its note, again the next one beneath it. A click on a link goes where it
 * leads, beside Avrelle; what is marked on it opens first. Gives the same for a press on what lies over the page, at a
 * point of the frame.
 */
export function useClicks(): (x: number, y: number) => void {
  const { store, inText } = useSession();
  const { page, laid } = useDocument();
  const threadAt = useCallback(
    (x: number, y: number): Thread | undefined => {
      if (!page) return undefined;
      const { adapter } = page;
      const point = adapter.shownAt(x, y);
      const drawn = laidAt(laid, point.x, point.y)?.thread;
      const at = adapter.offsetAt(x, y);
      const onWords = at === undefined ? [] : threadsAt(inText, at);
      const within = (by: number): readonly Thread[] =>
        onWords.filter(({ range }) => adapter.boxes(range).some((box) => holds(box, point, by)));
      const exactly = within(0);
      const hits = exactly.length > 0 ? exactly : within(NEAR);
      return nextHit(drawn ? [drawn, ...hits] : hits, openIn(store.getState()));
    },
    [page, inText, laid, store],
  );
  /** What a press on an element at a point does; nothing where it is the end of selecting. */
  const pressOn = useCallback(
    (element: Element | null, x: number, y: number): void => {
      const link = element?.closest?.('a[href]');
      const hit = threadAt(x, y);
      // What is open already needs no press: then the link leads on.
      if (link && (hit === undefined || hit.root.id === openIn(store.getState())))
        return follow(link, link.ownerDocument);
      store.dispatch({ type: 'press', hit: hit?.root.id });
    },
    [threadAt, store],
  );
  useEffect(() => {
    if (!page) return;
    const { adapter } = page;
    const onClick = (event: MouseEvent): void => {
      const element = event.target as Element | null;
      if (element?.closest?.('a[href]')) event.preventDefault();
      else if (adapter.selection()) return;
      pressOn(element, event.clientX, event.clientY);
    };
    adapter.document.addEventListener('click', onClick);
    return () => adapter.document.removeEventListener('click', onClick);
  }, [page, pressOn]);
  return useCallback((x, y) => pressOn(page?.adapter.document.elementFromPoint(x, y) ?? null, x, y), [page, pressOn]);
}

/** Whether a point lies in a box, or no more than `by` pixels beside it. */
const holds = ({ left, top, width, height }: Box, { x, y }: Point, by: number): boolean =>
  x >= left - by && x <= left + width + by && y >= top - by && y <= top + height + by;

interface Point {
  readonly x: number;
  readonly y: number;
}

function follow(link: Element, document: Document): void {
  const href = link.getAttribute('href') ?? '';
  if (href.startsWith('#')) return targetOf(href.slice(1), document)?.scrollIntoView({ block: 'start' });
  if (/^(https?|mailto):/i.test(href)) window.open(href, '_blank', 'noopener,noreferrer');
}

/** By its name as written, else as it reads; a name that is not encoded rightly leads nowhere. */
function targetOf(name: string, document: Document): Element | null {
  const written = document.getElementById(name);
  if (written) return written;
  try {
    return document.getElementById(decodeURIComponent(name));
  } catch {
    return null;
  }
}
