import { useCallback, useEffect, type Dispatch, type SetStateAction } from 'react';
import type { Laid } from './drawing/laid';
import { laidAt } from './drawing/laid-at';
import { nextHit, threadsAt } from './hit';
import type { Thread } from './shown';
import type { OpenPage } from './use-page';

type Set_<T> = Dispatch<SetStateAction<T>>;

/** So many pixels beside a line still mean its words. */
const NEAR = 5;

/**
 * A click on a mark or on something drawn opens its note, again the next one beneath it; a click on a link goes where it leads,
 * beside Avrelle. Gives the same for a press on what lies over the page, at a point of the frame.
 */
export function useClicks(page: OpenPage | undefined, visible: readonly Thread[], laid: readonly Laid[], opened: ReadonlySet<string>, held: string | undefined, setOpened: Set_<ReadonlySet<string>>, setHeld: Set_<string | undefined>): (x: number, y: number) => boolean {
  const press = useCallback((x: number, y: number): boolean => {
    if (!page) return false;
    const { adapter } = page, at = adapter.offsetAt(x, y), point = adapter.shownAt(x, y), drawn = laidAt(laid, point.x, point.y)?.thread;
    const onWords = ({ range }: Thread): boolean => adapter.boxes(range).some((box) => point.x >= box.left - NEAR && point.x <= box.left + box.width + NEAR && point.y >= box.top - NEAR && point.y <= box.top + box.height + NEAR);
    const hits = [...(drawn ? [drawn] : []), ...(at === undefined ? [] : threadsAt(visible, at).filter(onWords))];
    const hit = nextHit(hits, held && opened.has(held) ? held : undefined);
    if (hit) setOpened((before) => new Set([...before, hit.root.id]));
    setHeld(hit?.root.id);
    return hit !== undefined;
  }, [page, visible, laid, opened, held, setOpened, setHeld]);
  useEffect(() => {
    if (!page) return;
    const { adapter } = page;
    const onClick = (event: MouseEvent): void => {
      const link = (event.target as Element | null)?.closest?.('a[href]');
      // What is marked on a link opens first; with it open, the link leads on.
      if (link && (adapter.selection() || held || !press(event.clientX, event.clientY))) return follow(event, link, adapter.document);
      if (link) return event.preventDefault();
      if (!adapter.selection()) press(event.clientX, event.clientY);
    };
    adapter.document.addEventListener('click', onClick);
    return () => adapter.document.removeEventListener('click', onClick);
  }, [page, held, press]);
  return press;
}

function follow(event: MouseEvent, link: Element, document: Document): void {
  event.preventDefault();
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
