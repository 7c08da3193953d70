import { useEffect, useMemo } from 'react';
import { throttle } from 'es-toolkit';
import { useDocument, type DocumentView } from '../../reader/document/document-context';
import { useLatest } from '../../ui/use-latest';

/** A scroll so long after a wheel, finger or key is theirs, in milliseconds: it may roll on. */
const ROLLS_ON = 700;
const KEYS = new Set(['PageDown', 'PageUp', 'ArrowDown', 'ArrowUp', ' ']);

/** Where the application itself has scrolled to, by what scrolls. */
const sent = new WeakMap<HTMLElement, number>();
const SAME = 2;

/** Scrolls as the application, not as somebody's own hand. */
export function sendTo(scroller: HTMLElement | null, go: () => void): void {
  go();
  if (scroller) sent.set(scroller, scroller.scrollTop);
}

/** Tells of scrolling by one's own hand, wherever on the page, and of none that the application does. */
function useOwnScroll(onScroll: (top: number) => void): void {
  const { page, scroller } = useDocument();
  const latest = useLatest(onScroll);
  useEffect(() => {
    const around = scroller.current;
    if (!around || !page) return;
    let own = -Infinity;
    const touched = (event: Event): void => {
      const key = event.type === 'keydown' ? (event as KeyboardEvent).key : undefined;
      if (key === undefined || KEYS.has(key)) own = performance.now();
    };
    const scrolled = (): void => {
      const isSent = Math.abs(around.scrollTop - (sent.get(around) ?? -Infinity)) < SAME;
      if (isSent || performance.now() - own > ROLLS_ON) return;
      own = performance.now();
      latest.current(around.scrollTop);
    };
    const leave = new AbortController();
    const { signal } = leave;
    for (const target of [around, page.adapter.document])
      for (const type of ['wheel', 'touchmove', 'keydown', 'pointerdown'])
        target.addEventListener(type, touched, { signal, passive: true });
    around.addEventListener('scroll', scrolled, { signal, passive: true });
    return () => leave.abort();
  }, [page, scroller, latest]);
}

/** The same, at most once in so many milliseconds, the last always; `stop` takes back what waits. */
export function useScrollTold(every: number, say: (top: number, on: DocumentView) => void): () => void {
  const latest = useLatest({ on: useDocument(), say });
  const tell = useMemo(
    () => throttle((top: number): void => latest.current.say(top, latest.current.on), every),
    [latest, every],
  );
  useEffect(() => tell.cancel, [tell]);
  useOwnScroll(tell);
  return tell.cancel;
}
