import { useLayoutEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { useVirtualizer, type Virtualizer } from '@tanstack/react-virtual';

const CHOOSING: ReadonlySet<string> = new Set([' ', 'x']);
/** Rows beyond those that are seen. */
const AHEAD = 8;

export interface Rows {
  readonly list: RefObject<(HTMLOListElement & HTMLDivElement) | null>;
  readonly virtual: Virtualizer<HTMLElement, HTMLLIElement>;
  readonly top: number;
  onKeyDown(event: KeyboardEvent): void;
}

interface RowHeight {
  /** In pixels. */
  readonly height: number;
  /** Whether rows may be higher than that, so that each is measured. */
  readonly measured: boolean;
}

interface Given {
  onLook(first: number, last: number): void;
  onChoose(index: number): void;
}

/** How far down in what scrolls a list begins, in pixels, whatever comes or goes above it. */
function useTop(scroller: HTMLElement | null, list: { readonly current: HTMLElement | null }): number {
  const [top, setTop] = useState(0);
  useLayoutEffect(() => {
    const box = list.current;
    if (!box || !scroller) return;
    const place = (): void =>
      setTop(box.getBoundingClientRect().top - scroller.getBoundingClientRect().top + scroller.scrollTop);
    place();
    const observer = new ResizeObserver(place);
    for (const child of scroller.children) observer.observe(child);
    return () => observer.disconnect();
  }, [scroller, list]);
  return top;
}

/** A long list inside a page that scrolls: only the rows near what is seen are there. Arrow keys go from row to row, `Space` and `x` choose one. */
export function useRows(
  scroller: HTMLElement | null,
  count: number,
  { height, measured }: RowHeight,
  { onLook, onChoose }: Given,
): Rows {
  const list = useRef<HTMLOListElement & HTMLDivElement>(null);
  const top = useTop(scroller, list);
  const virtual = useVirtualizer<HTMLElement, HTMLLIElement>({
    count,
    getScrollElement: () => scroller,
    estimateSize: () => height,
    overscan: AHEAD,
    scrollMargin: top,
    ...(measured ? {} : { measureElement: () => height }),
  });
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
  const goTo = (index: number): void => {
    virtual.scrollToIndex(index, { align: 'auto' });
    if (!focus(index))
      requestAnimationFrame(() => {
        if (!focus(index)) setTimeout(() => focus(index), 60);
      });
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const target = event.target as HTMLElement;
    const row = target.closest<HTMLElement>('[data-index]');
    if (!row) return;
    const at = Number(row.dataset.index);
    if (CHOOSING.has(event.key) && target.matches('[data-row]')) {
      event.preventDefault();
      return onChoose(at);
    }
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: count - 1 }[event.key] ?? -1;
    if (to < 0 || to >= count || event.defaultPrevented || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    goTo(to);
  };
  return { list, virtual, top, onKeyDown };
}
