import { useEffect } from 'react';
import type { SourceKind, SourceText } from '@avrelle/core/wire';
import { NoteText } from './NoteCard';
import { fetchEditor } from './NoteForm';
import { indexOf } from '../../../page/text-index';
import type { OpenPage } from '../../document/use-page';

/** Where the browser tells of no idle moment, and where there are pages to be drawn first, in milliseconds. */
const LATER = 1_500;

/** What the first mark and the first note will need is made ready in a quiet moment after the page has opened. */
export function usePrepared(page: OpenPage | undefined, text: SourceText, kind: SourceKind): void {
  useEffect(() => {
    if (!page) return;
    const prepare = (): void => {
      for (const fetched of [fetchEditor(), NoteText.fetchCode()]) void fetched.catch(() => undefined);
      indexOf(text);
    };
    let asked: number | undefined;
    const whenIdle = (): void => {
      if ('requestIdleCallback' in window) asked = requestIdleCallback(prepare, { timeout: 2 * LATER });
      else prepare();
    };
    const isBusy = kind === 'pdf' || !('requestIdleCallback' in window);
    const timer = setTimeout(whenIdle, isBusy ? LATER : 0);
    return () => {
      clearTimeout(timer);
      if (asked !== undefined) cancelIdleCallback(asked);
    };
  }, [page, text, kind]);
}
