import { useEffect } from 'react';
import type { SourceText } from '@avrelle/core/wire';
import { NoteText } from './NoteCard';
import { fetchEditor } from './NoteForm';
import { indexOf } from '../../../page/text-index';
import type { OpenPage } from '../../document/use-page';

/** Where the browser tells of no idle moment, in milliseconds. */
const LATER = 1_500;

/** What the first mark and the first note will need is made ready in a quiet moment after the page has opened. */
export function usePrepared(page: OpenPage | undefined, text: SourceText): void {
  useEffect(() => {
    if (!page) return;
    const prepare = (): void => {
      for (const fetched of [fetchEditor(), NoteText.fetchCode()]) void fetched.catch(() => undefined);
      indexOf(text);
    };
    if (!('requestIdleCallback' in window)) {
      const timer = setTimeout(prepare, LATER);
      return () => clearTimeout(timer);
    }
    const asked = requestIdleCallback(prepare, { timeout: 2 * LATER });
    return () => cancelIdleCallback(asked);
  }, [page, text]);
}
