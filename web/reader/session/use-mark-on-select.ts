import { useEffect } from 'react';
import { useLatest } from '../../ui/use-latest';
import type { OpenPage } from '../document/use-page';

/** How long a selection made without a pointer (by the handles of a tablet) must rest before it counts as made, in milliseconds. */
const RESTS = 700;

/** While on, what is selected is marked as soon as the pointer lets go; with Alt held it is left alone. */
export function useMarkOnSelect(page: OpenPage | undefined, on: boolean, mark: () => void): void {
  const latest = useLatest(mark);
  useEffect(() => {
    if (!page || !on) return;
    const { document } = page.adapter;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let touching = false;
    const onUp = (event: MouseEvent): void => {
      if (!event.altKey) latest.current();
    };
    const onTouch = (event: PointerEvent): void => {
      touching = event.pointerType !== 'mouse';
    };
    const onSelection = (): void => {
      clearTimeout(timer);
      if (touching) timer = setTimeout(() => latest.current(), RESTS);
    };
    document.addEventListener('mouseup', onUp);
    document.addEventListener('pointerdown', onTouch);
    document.addEventListener('selectionchange', onSelection);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('mouseup', onUp);
      document.removeEventListener('pointerdown', onTouch);
      document.removeEventListener('selectionchange', onSelection);
    };
  }, [page, on, latest]);
}
