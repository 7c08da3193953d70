import { useEffect, useState } from 'react';

/** Nothing but the page: everything around it steps back. Style sheets do it, by one attribute of the document. */
export function useFocusMode(): readonly [boolean, (on: boolean) => void] {
  const [on, setOn] = useState(false);
  useEffect(() => {
    if (on) document.documentElement.dataset.focus = '';
    else delete document.documentElement.dataset.focus;
    return () => { delete document.documentElement.dataset.focus; };
  }, [on]);
  return [on, setOn];
}
