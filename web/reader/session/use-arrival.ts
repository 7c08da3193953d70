import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';
import { findDirective, parseTextDirective } from '@avrelle/core/anchor';
import type { AnnotationId, SourceText } from '@avrelle/core/wire';
import { indexOf } from '../../page/text-index';
import type { StreamRange } from '../../page/page-frame';
import { useDocument } from '../document/document-context';
import { useSession } from './reader-context';

/** How far below the top of what is seen one arrives: so many pixels, at most so much of its height. */
const BELOW = 240;
const BELOW_SHARE = 0.35;
export const belowTop = (height = Infinity): number => Math.min(BELOW, BELOW_SHARE * height);
/** The same, where one left off. */
const LEFT_OFF_BELOW = 24;
/** By then the page stands as it will: after so many layouts. */
export const SETTLED = 2;

/** Where to go, and what of it is shown when one is there. */
interface Aim {
  /** How far down the page it stands; undefined where it does not. */
  readonly stands: number | undefined;
  /** How far below the top of what is seen it shall be. */
  readonly below: number;
  arrive?(): void;
}

/**
 * Where the reader arrives: at an annotation (`shown`, `?at=`), at a passage (`?from=&to=`, `?passage=`), or where
 * reading was left off; nowhere where `shown` is null, and somebody else says where.
 */
export function useArrival(shown?: AnnotationId | null): void {
  const { store, source, text } = useSession();
  const { page, layout, height, places, scroll, goTo } = useDocument();
  const [params] = useSearchParams();
  const arrived = useRef('');
  const wanted = shown ?? (params.toString() || 'left-off');
  useEffect(() => {
    if (!page || shown === null || layout < SETTLED || arrived.current === wanted) return;
    const below = belowTop(scroll()?.height);
    const aim = ((): Aim | undefined => {
      const at = shown ?? params.get('at');
      if (at) {
        const place = places.get(at);
        return place && { stands: place.top, below, arrive: () => store.dispatch({ type: 'expand', id: at }) };
      }
      const topOf = (range: StreamRange): number | undefined => page.adapter.boxes(range)[0]?.top;
      const passage = passageOf(params, text);
      if (passage) return { stands: topOf(passage) ?? 0, below, arrive: () => page.painter.found(passage) };
      const { position } = source;
      const left = position > 0 ? (topOf({ start: position, end: position + 1 }) ?? 0) : undefined;
      return { stands: left, below: LEFT_OFF_BELOW };
    })();
    // A page whose height is not known yet could not be scrolled so far.
    if (!aim || (aim.stands ?? 0) > height) return;
    arrived.current = wanted;
    aim.arrive?.();
    if (aim.stands !== undefined) goTo(aim.stands - aim.below);
  }, [page, layout, height, places, params, shown, wanted, store, goTo, text, source, scroll]);
}

/** The passage that an address names, by a text directive or by its place. */
function passageOf(params: URLSearchParams, text: SourceText): StreamRange | undefined {
  const named = params.get('passage');
  const directive = named ? parseTextDirective(named) : undefined;
  const found = directive && findDirective(indexOf(text), directive);
  if (found) return found;
  const range = { start: Number(params.get('from')), end: Number(params.get('to')) };
  return range.end > range.start ? range : undefined;
}
