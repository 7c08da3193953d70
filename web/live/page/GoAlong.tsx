import { useEffect, useRef } from 'react';
import type { LivePlace } from '@avrelle/core/wire';
import { useDocument, type DocumentView } from '../../reader/document/document-context';
import { about } from '../../reader/document/use-layout';
import { sendTo } from './use-own-scroll';
import { belowTop, SETTLED } from '../../reader/session/use-arrival';

interface Props {
  readonly place: LivePlace;
  /** The character at the top of the window of who shows; null where the place itself is shown. */
  readonly top: number | null;
  /** Goes there again whenever the page is laid out anew; else once for each place. */
  readonly always: boolean;
}

/** Goes to the words that are shown, at whatever width the page has here. */
export function GoAlong({ place, top, always }: Props) {
  const view = useDocument();
  const { page, layout, goTo, scroller } = view;
  const gone = useRef('');
  const wanted = JSON.stringify([place, always ? top : null]);
  const to = page && layout >= SETTLED ? aim(view, place, top) : undefined;
  useEffect(() => {
    if (to === undefined || (!always && gone.current === wanted)) return;
    gone.current = wanted;
    sendTo(scroller.current, () => goTo(to));
  }, [to, goTo, scroller, always, wanted]);
  return null;
}

/** How far down to go; undefined as long as the page is not so tall: it could not be scrolled there. */
function aim({ page, places, blocks, height, scroll }: DocumentView, place: LivePlace, top: number | null) {
  const topOf = (start: number): number | undefined =>
    page?.adapter.boxes({ start, end: start + 1 })[0]?.top ?? about(blocks, start)?.top;
  if (top !== null) return within(topOf(top), height);
  const { annotationId, range } = place;
  const noted = annotationId === null ? undefined : places.get(annotationId)?.top;
  const stands = within(noted ?? (range ? topOf(range.start) : 0), height);
  return stands === undefined ? undefined : Math.max(0, stands - belowTop(scroll()?.height));
}

const within = (top: number | undefined, height: number): number | undefined =>
  top !== undefined && top <= height ? top : undefined;
