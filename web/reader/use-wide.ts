import { useSyncExternalStore } from 'react';

const QUERY = '(min-width: 900px)';

/** True where the margin has room beside the page. */
export const useWide = (): boolean => useSyncExternalStore((listener) => {
  const media = matchMedia(QUERY);
  media.addEventListener('change', listener);
  return () => media.removeEventListener('change', listener);
}, () => matchMedia(QUERY).matches);
