import { useCallback, useEffect, type Dispatch, type SetStateAction } from 'react';
import type { Laid } from '../drawing/laid';
import { laidAt } from '../drawing/laid-at';
import { nextHit, threadsAt } from '../../page/hit';
import type { Box } from '../../page/page-frame';
import type { Thread } from '../model/thread';
import type { OpenPage } from './use-page';

/** So many pixels beside a line still mean its words. */
const NEAR = 5;

interface Given {
  readonly page: OpenPage | undefined;
  readonly visible: readonly Thread[];
  readonly laid: readonly Laid[];
  readonly opened: ReadonlySet<string>;
  readonly held: string | undefined;
  setOpened: Dispatch<SetStateAction<ReadonlySet<string>>>;
  setHeld: Dispatch<SetStateAction<string | undefined>>;
}

/**
 * A click on a mark or on something drawn opens its note, again the next one beneath it. A click on a link goes where it
 * leads, beside Avrelle; what is marked on it opens first. Gives the same for a press on what lies over the page, at a
 * point of the frame.
 */
export function useClicks({
  page,
  visible,
  laid,
  opened,
  held,
  setOpened,
  setHeld,
}: Given): (x: number, y: number) => void {
  const open = held !== undefined && opened.has(held) ? held : undefined;
  const threadAt = useCallback(
    (x: number, y: number): Thread | undefined => {
      if (!page) return undefined;
      const { adapter } = page;
      const point = adapter.shownAt(x, y);
      const drawn = laidAt(laid, point.x, point.y)?.thread;
      const at = adapter.offsetAt(x, y);
      const onWords = at === undefined ? [] : threadsAt(visible, at);
      const within = (by: number): readonly Thread[] =>
        onWords.filter(({ range }) => adapter.boxes(range).some((box) => holds(box, point, by)));
      const exactly = within(0);
      const hits = exactly.length > 0 ? exactly : within(NEAR);
      return nextHit(drawn ? [drawn, ...hits] : hits, open);
    },
    [page, visible, laid, open],
  );
  /** What a press on an element at a point does; nothing where it is the end of selecting. */
  const pressOn = useCallback(
    (element: Element | null, x: number, y: number): void => {
      const link = element?.closest?.('a[href]');
      const hit = threadAt(x, y);
      // What is open already needs no press: then the link leads on.
      if (link && (hit === undefined || hit.root.id === open)) return follow(link, link.ownerDocument);
      if (hit) setOpened((before) => new Set([...before, hit.root.id]));
      setHeld(hit?.root.id);
    },
    [threadAt, open, setOpened, setHeld],
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
