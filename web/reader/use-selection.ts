import { useEffect, useState } from 'react';
import type { StreamRange } from './page-frame';
import type { OpenPage } from './use-page';

/** What is selected on the page, in the text stream. */
export function useSelection(page: OpenPage | undefined): StreamRange | undefined {
  const [selected, setSelected] = useState<StreamRange>();
  useEffect(() => {
    if (!page) return;
    const { adapter } = page;
    const follow = (): void => setSelected((before) => {
      const now = adapter.selection();
      return before?.start === now?.start && before?.end === now?.end ? before : now;
    });
    adapter.document.addEventListener('selectionchange', follow);
    return () => adapter.document.removeEventListener('selectionchange', follow);
  }, [page]);
  return selected;
}
