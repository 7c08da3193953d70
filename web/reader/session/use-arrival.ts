import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';
import type { SourceDetail } from '@avrelle/core/wire';
import type { Place } from '../document/use-layout';
import type { OpenPage } from '../document/use-page';
import type { Scroll } from './use-reading';

const ABOVE = 120;

/** Scrolls only when `top` is not comfortably in view. */
export function reveal(top: number | undefined, view: Scroll | undefined, goTo: (top: number) => void): void {
  if (top === undefined || !view) return;
  if (top < view.top + 40 || top > view.top + view.height - ABOVE) goTo(top - view.height / 3);
}

interface Arrival {
  readonly page: OpenPage | undefined;
  readonly layout: number;
  readonly places: ReadonlyMap<string, Place>;
  readonly source: SourceDetail;
  goTo(top: number): void;
  open(id: string): void;
  /** Finds what a text directive (`?passage=`) names. */
  find(passage: string): { start: number; end: number } | undefined;
}

/** Where the reader arrives: at an annotation (`?at=`), at a passage (`?from=&to=`, `?passage=`), or where reading was left off. */
export function useArrival({ page, layout, places, goTo, open, find, source }: Arrival): void {
  const [params] = useSearchParams();
  const arrived = useRef('');
  const wanted = params.toString() || 'left-off';
  useEffect(() => {
    if (!page || layout < 2 || arrived.current === wanted) return;
    const at = params.get('at');
    const passage = params.get('passage');
    const { start: from, end: to } = (passage ? find(passage) : undefined) ?? {
      start: Number(params.get('from')),
      end: Number(params.get('to')),
    };
    if (at && !places.has(at)) return;
    arrived.current = wanted;
    if (at) {
      open(at);
      goTo(places.get(at)!.top - ABOVE * 2);
    } else if (to > from) {
      page.painter.found({ start: from, end: to });
      goTo((page.adapter.boxes({ start: from, end: to })[0]?.top ?? 0) - ABOVE * 2);
    } else if (source.position > 0) {
      goTo((page.adapter.boxes({ start: source.position, end: source.position + 1 })[0]?.top ?? 0) - 24);
    }
  }, [page, layout, places, params, wanted, goTo, open, find, source.position]);
}
