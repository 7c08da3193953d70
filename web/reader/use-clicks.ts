import { useEffect, type Dispatch, type SetStateAction } from 'react';
import type { Laid } from './drawing/laid';
import { laidAt } from './drawing/laid-at';
import { nextHit, threadsAt } from './hit';
import type { Thread } from './shown';
import type { OpenPage } from './use-page';

type Set_<T> = Dispatch<SetStateAction<T>>;

/** A click on a mark or on something drawn opens its note, again the next one beneath it; a click on a link goes where it leads, beside Avrelle. */
export function useClicks(page: OpenPage | undefined, visible: readonly Thread[], laid: readonly Laid[], opened: ReadonlySet<string>, held: string | undefined, setOpened: Set_<ReadonlySet<string>>, setHeld: Set_<string | undefined>): void {
  useEffect(() => {
    if (!page) return;
    const { adapter } = page;
    const onClick = (event: MouseEvent): void => {
      const link = (event.target as Element | null)?.closest?.('a[href]');
      if (link) return follow(event, link, adapter.document);
      if (adapter.selection()) return;
      const at = adapter.offsetAt(event.clientX, event.clientY), point = adapter.shownAt(event.clientX, event.clientY), drawn = laidAt(laid, point.x, point.y)?.thread;
      const hits = [...(drawn ? [drawn] : []), ...(at === undefined ? [] : threadsAt(visible, at))];
      const hit = nextHit(hits, held && opened.has(held) ? held : undefined);
      if (!hit) return setHeld(undefined);
      setOpened((before) => new Set([...before, hit.root.id]));
      setHeld(hit.root.id);
    };
    adapter.document.addEventListener('click', onClick);
    return () => adapter.document.removeEventListener('click', onClick);
  }, [page, visible, laid, opened, held, setOpened, setHeld]);
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
