import { useEffect } from 'react';
import type { ReaderStore } from './reader-context';

/**
 * Nothing but the page: everything around it steps back. Style sheets do it, by one attribute of the document, which is
 * set at once: what is hidden takes no keys, and the next letter comes before React has shown the rest.
 */
export function useFocusMode(store: ReaderStore): void {
  useEffect(() => {
    const stop = store.subscribe(({ focusMode }) => show(focusMode));
    return () => {
      stop();
      show(false);
    };
  }, [store]);
}

function show(focused: boolean): void {
  if (focused) document.documentElement.dataset.focus = '';
  else delete document.documentElement.dataset.focus;
}
