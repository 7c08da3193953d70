import { useCallback, useEffect, useState } from 'react';

/** Nothing but the page: everything around it steps back. Style sheets do it, by one attribute of the document. */
export function useFocusMode(): readonly [boolean, (on: boolean) => void] {
  const [on, setOn] = useState(false);
  const turn = useCallback((to: boolean): void => {
    // At once: what is hidden takes no keys, and the next letter comes before React has shown the rest.
    show(to);
    setOn(to);
  }, []);
  useEffect(() => () => show(false), []);
  return [on, turn];
}

function show(focused: boolean): void {
  if (focused) document.documentElement.dataset.focus = '';
  else delete document.documentElement.dataset.focus;
}
