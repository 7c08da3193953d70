import { useEffect, useLayoutEffect, useMemo } from 'react';
import { defer } from '../../../data/deferred';
import type { StreamRange } from '../../../page/page-frame';
import { useDocument } from '../../document/document-context';
import { useReader, useSession } from '../../session/reader-context';

/** In characters. The browser goes over all ranges it holds whenever one comes or goes: it holds those some screens around what is seen. */
const STEP = 10_000;

/** Paints what is marked near what is seen, and what of it is open. */
export function PaintedMarks() {
  const { inText } = useSession();
  const { page, blocks } = useDocument();
  const expanded = useReader((s) => s.expanded);
  const { top, height } = useReader((s) => s.scroll);
  const first = blocks.find((b) => b.bottom > top)?.block.start ?? 0;
  const last = blocks.findLast((b) => b.top < top + height)?.block.end ?? first;
  const from = (Math.floor(first / STEP) - 2) * STEP;
  const to = (Math.floor(last / STEP) + 3) * STEP;
  const near = useMemo(() => inText.filter((t) => overlaps(t.range, from, to)), [inText, from, to]);
  // Before the frame, not after it: a mark is there with the key.
  useLayoutEffect(() => {
    page?.painter.paint(near.map(({ root, range }) => ({ ...range, kind: root.kind })));
  }, [page, near]);
  // The note itself comes first: to paint on a long page takes as long again.
  useEffect(
    () => defer(() => page?.painter.open(near.filter((t) => expanded.has(t.root.id)).map((t) => t.range))),
    [page, near, expanded],
  );
  return null;
}

const overlaps = ({ start, end }: StreamRange, from: number, to: number): boolean => start < to && end > from;
