import type { Thread } from '../reader/model/thread';

/**
 * The threads whose passage holds a place between two characters or ends at it, the shortest first: so nested highlights
 * are all reachable. A press on the last half of a letter is a place behind it.
 */
export function threadsAt(all: readonly Thread[], at: number): readonly Thread[] {
  const length = ({ range }: Thread): number => range.end - range.start;
  return all.filter(({ range }) => range.start <= at && at <= range.end).sort((a, b) => length(a) - length(b));
}

/** Which to open on a click: the first, or the one after that already open, so that clicking again goes on to the next. */
export function nextHit(hits: readonly Thread[], open: string | undefined): Thread | undefined {
  const at = hits.findIndex((t) => t.root.id === open);
  return hits[(at + 1) % Math.max(1, hits.length)];
}
