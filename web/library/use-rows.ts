import { useLayoutEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { useVirtualizer, type Virtualizer } from '@tanstack/react-virtual';

/** Rows beyond those that are seen. */
const AHEAD = 8;

export interface Rows {
  readonly list: RefObject<(HTMLOListElement & HTMLDivElement) | null>;
  readonly virtual: Virtualizer<HTMLElement, HTMLLIElement>;
  readonly top: number;
  onKeyDown(event: KeyboardEvent): void;
}

interface Given {
  onLook(first: number, last: number): void;
  onChoose(index: number): void;
}

/** A long list inside a page that scrolls: only the rows near what is seen are there. Arrow keys go from row to row, `Space` and `x` choose one. */
export function useRows(
  scroller: HTMLElement | null,
  count: number,
  height: number,
  measured: boolean,
  { onLook, onChoose }: Given,
): Rows {
  const list = useRef<HTMLOListElement & HTMLDivElement>(null);
  const [top, setTop] = useState(0);
  const virtual = useVirtualizer<HTMLElement, HTMLLIElement>({
    count,
    getScrollElement: () => scroller,
    estimateSize: () => height,
    overscan: AHEAD,
    scrollMargin: top,
    ...(measured ? {} : { measureElement: () => height }),
  });
  useLayoutEffect(() => {
    const box = list.current;
    const within = scroller;
    if (!box || !within) return;
    const place = (): void =>
      setTop(box.getBoundingClientRect().top - within.getBoundingClientRect().top + within.scrollTop);
    place();
    const observer = new ResizeObserver(place);
    for (const child of within.children) observer.observe(child);
    return () => observer.disconnect();
  }, [scroller]);
  const items = virtual.getVirtualItems();
  const first = items[0]?.index ?? 0;
  const last = items.at(-1)?.index ?? 0;
  const latest = useRef(onLook);
  useLayoutEffect(() => {
    latest.current = onLook;
  });
  useLayoutEffect(() => latest.current(first, last), [first, last]);
  const focus = (index: number): boolean => {
    const link = list.current?.querySelector<HTMLElement>(`[data-index="${index}"] [data-row]`);
    link?.focus({ preventScroll: true });
    return Boolean(link);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const row = (event.target as HTMLElement).closest<HTMLElement>('[data-index]');
    const at = Number(row?.dataset.index);
    if (row && (event.key === ' ' || event.key === 'x') && (event.target as HTMLElement).matches('[data-row]')) {
      event.preventDefault();
      return onChoose(at);
    }
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: count - 1 }[event.key];
    if (!row || to === undefined || to < 0 || to >= count || event.defaultPrevented || event.ctrlKey || event.metaKey)
      return;
    event.preventDefault();
    virtual.scrollToIndex(to, { align: 'auto' });
    if (!focus(to))
      requestAnimationFrame(() => {
        if (!focus(to)) setTimeout(() => focus(to), 60);
      });
  };
  return { list, virtual, top, onKeyDown };
}
