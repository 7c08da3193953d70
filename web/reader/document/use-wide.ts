import { useSyncExternalStore } from 'react';

let media: MediaQueryList | undefined;
const query = (): MediaQueryList => (media ??= matchMedia('(min-width: 900px)'));
const follow = (listener: () => void) => {
  query().addEventListener('change', listener);
  return () => query().removeEventListener('change', listener);
};

/** True where the margin has room beside the page. */
export const useWide = (): boolean => useSyncExternalStore(follow, () => query().matches);
