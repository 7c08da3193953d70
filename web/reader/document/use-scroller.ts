import { useMemo, useRef } from 'react';
import type { StreamRange } from '../../page/page-frame';
import type { Scroll } from '../model/reader-state';
import type { DocumentView } from './document-context';
import type { OpenPage } from './use-page';

type Scrolling = Pick<
  DocumentView,
  'scroller' | 'scroll' | 'goTo' | 'goToRange' | 'reveal' | 'revealTop' | 'selection'
>;

/** Nearer to the foot of the window than this, in pixels, a line is not comfortably in view; likewise to its top. */
const FOOT = 120;
const TOP = 40;
const BELOW = 24;

/** Where to scroll so that a line is in view; undefined where it is already. */
function revealed(top: number | undefined, view: Scroll | undefined): number | undefined {
  if (top === undefined || !view) return undefined;
  return top < view.top + TOP || top > view.top + view.height - FOOT ? top - view.height / 3 : undefined;
}

/** Scrolling to passages of the page, and what of it is selected. */
export function useScroller(page: OpenPage | undefined): Scrolling {
  const scroller = useRef<HTMLDivElement>(null);
  return useMemo((): Scrolling => {
    const scroll = (): Scroll | undefined =>
      scroller.current ? { top: scroller.current.scrollTop, height: scroller.current.clientHeight } : undefined;
    const goTo = (top: number): void => scroller.current?.scrollTo({ top: Math.max(0, top) });
    const revealTop = (top: number | undefined): void => {
      const to = revealed(top, scroll());
      if (to !== undefined) goTo(to);
    };
    const topOf = (range: StreamRange): number | undefined => page?.adapter.boxes(range)[0]?.top;
    return {
      scroller,
      scroll,
      goTo,
      goToRange: (range, below = BELOW) => goTo((topOf(range) ?? 0) - below),
      reveal: (range) => revealTop(topOf(range)),
      revealTop,
      selection: () => page?.adapter.selection(),
    };
  }, [page]);
}
