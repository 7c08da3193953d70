import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';
import { findDirective, parseTextDirective } from '@avrelle/core/anchor';
import type { SourceText } from '@avrelle/core/wire';
import { indexOf } from '../../page/text-index';
import type { StreamRange } from '../../page/page-frame';
import { useDocument } from '../document/document-context';
import { useSession } from './reader-context';

/** How far below the top of the window one arrives, in pixels. */
const BELOW = 240;
/** By then the page stands as it will. */
const SETTLED = 2;

/** Where the reader arrives: at an annotation (`?at=`), at a passage (`?from=&to=`, `?passage=`), or where reading was left off. */
export function useArrival(): void {
  const { store, source, text } = useSession();
  const { page, layout, places, goTo, goToRange } = useDocument();
  const [params] = useSearchParams();
  const arrived = useRef('');
  const wanted = params.toString() || 'left-off';
  useEffect(() => {
    if (!page || layout < SETTLED || arrived.current === wanted) return;
    const at = params.get('at');
    if (at && !places.has(at)) return;
    arrived.current = wanted;
    const passage = passageOf(params, text);
    if (at) {
      store.dispatch({ type: 'expand', id: at });
      goTo(places.get(at)!.top - BELOW);
    } else if (passage) {
      page.painter.found(passage);
      goToRange(passage, BELOW);
    } else if (source.position > 0) goToRange({ start: source.position, end: source.position + 1 });
  }, [page, layout, places, params, wanted, store, goTo, goToRange, text, source.position]);
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
