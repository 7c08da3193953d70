import { useMemo, useSyncExternalStore } from 'react';

/** True where the window is at least so many pixels wide. */
export function useWidth(least: number): boolean {
  const [follow, read] = useMemo(() => {
    const media = matchMedia(`(min-width: ${least}px)`);
    const listen = (changed: () => void) => {
      media.addEventListener('change', changed);
      return () => media.removeEventListener('change', changed);
    };
    return [listen, () => media.matches] as const;
  }, [least]);
  return useSyncExternalStore(follow, read);
}

/** True where the margin has room beside the page. */
export const useWide = (): boolean => useWidth(900);
