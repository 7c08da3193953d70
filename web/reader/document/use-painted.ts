import { useEffect, useLayoutEffect, useMemo } from 'react';
import { soon } from '../../data/soon';
import type { StreamRange } from '../../page/page-frame';
import type { Thread } from '../model/thread';
import type { PlacedBlock } from './use-layout';
import type { OpenPage } from './use-page';
import type { Scroll } from '../session/use-reading';

/** In characters. The browser goes over all ranges it holds whenever one comes or goes: it holds those some screens around what is seen. */
const STEP = 10_000;

/** Paints what is marked near what is seen, and what of it is open. */
export function usePainted(
  page: OpenPage | undefined,
  inText: readonly Thread[],
  opened: ReadonlySet<string>,
  blocks: readonly PlacedBlock[],
  seen: Scroll,
): void {
  const first = blocks.find((b) => b.bottom > seen.top)?.block.start ?? 0;
  const last = blocks.findLast((b) => b.top < seen.top + seen.height)?.block.end ?? first;
  const from = (Math.floor(first / STEP) - 2) * STEP;
  const to = (Math.floor(last / STEP) + 3) * STEP;
  const near = useMemo(() => inText.filter((t) => overlaps(t.range, from, to)), [inText, from, to]);
  // Before the frame, not after it: a mark is there with the key.
  useLayoutEffect(() => {
    page?.painter.paint(near.map(({ root, range }) => ({ ...range, kind: root.kind })));
  }, [page, near]);
  // The note itself comes first: to paint on a long page takes as long again.
  useEffect(
    () => soon(() => page?.painter.open(near.filter((t) => opened.has(t.root.id)).map((t) => t.range))),
    [page, near, opened],
  );
}

const overlaps = ({ start, end }: StreamRange, from: number, to: number): boolean => start < to && end > from;
