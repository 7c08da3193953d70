import { useCallback, useSyncExternalStore } from 'react';
import type { OpenPage } from './use-page';

const nothing = (): void => undefined;

/** Whether words are selected on the page. Asked only by what shows it: the reading view itself is not made anew by a selection. */
export function useSelecting(page: OpenPage | undefined): boolean {
  const follow = useCallback(
    (changed: () => void) => {
      const document = page?.adapter.document;
      document?.addEventListener('selectionchange', changed);
      return document ? () => document.removeEventListener('selectionchange', changed) : nothing;
    },
    [page],
  );
  return useSyncExternalStore(follow, () => page?.adapter.selection() !== undefined);
}
