import { useLayoutEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { placeNotes } from '@avrelle/core/margin';

export interface MarginItem {
  readonly id: string;
  /** Where it wants to stand: level with its passage. */
  readonly y: number;
  body(): ReactNode;
}

export interface Seen {
  readonly top: number;
  readonly height: number;
}

const GAP = 12;
const LEVEL = 3;
const GUESS = 70;
/** Screens above and below what is seen in which notes stand ready. */
const READY = 1.5;

export const isNear = (top: number, { top: from, height }: Seen): boolean =>
  top > from - (READY + 0.5) * height && top < from + (1 + READY) * height;

/** Notes level with their passages, pushed apart without overlap; the one held stays where its passage is. Only those near what is seen are there. */
export function Margin({
  items,
  held,
  view,
  least,
  onPlaced,
}: {
  items: readonly MarginItem[];
  view: Seen;
  held: string | undefined;
  /** Above this none stands. */ least: number;
  onPlaced: (tops: ReadonlyMap<string, number>) => void;
}) {
  const [heights, setHeights] = useState<ReadonlyMap<string, number>>(new Map());
  const nodes = useRef(new Map<string, HTMLElement>());
  const watcher = useRef<ResizeObserver>(undefined);

  useLayoutEffect(() => {
    const observer = new ResizeObserver(() => setHeights((before) => measure(before, nodes.current)));
    watcher.current = observer;
    for (const node of nodes.current.values()) observer.observe(node);
    return () => observer.disconnect();
  }, []);

  const hold = (id: string) => (node: HTMLElement | null) => {
    if (!node) return;
    nodes.current.set(id, node);
    watcher.current?.observe(node);
    return () => {
      nodes.current.delete(id);
      watcher.current?.unobserve(node);
    };
  };

  const tops = useMemo(
    () =>
      placeNotes(
        items.map(({ id, y }) => ({ id, y: Math.max(least, y - LEVEL), height: heights.get(id) ?? GUESS })),
        GAP,
        held,
      ),
    [items, heights, held, least],
  );
  useLayoutEffect(() => onPlaced(tops), [tops, onPlaced]);

  return (
    <div className="relative">
      {items.map(
        ({ id, body }) =>
          (id === held || isNear(tops.get(id) ?? 0, view)) && (
            <div
              key={id}
              ref={hold(id)}
              className="absolute left-[10px] right-[10px] transition-transform duration-150"
              style={{ transform: `translateY(${tops.get(id) ?? 0}px)` }}
            >
              {body()}
            </div>
          ),
      )}
    </div>
  );
}

/** The heights now, with those measured before; the same map when none changed. */
function measure(
  before: ReadonlyMap<string, number>,
  nodes: ReadonlyMap<string, HTMLElement>,
): ReadonlyMap<string, number> {
  const changed = [...nodes]
    .map(([id, node]) => [id, node.offsetHeight] as const)
    .filter(([id, height]) => before.get(id) !== height);
  return changed.length === 0 ? before : new Map([...before, ...changed]);
}

export const sameMap = (a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>): boolean =>
  a.size === b.size && [...b].every(([key, value]) => a.get(key) === value);
