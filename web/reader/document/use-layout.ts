import { useMemo } from 'react';
import type { AreaSpot, TimeSpot, WholeSpot } from '@avrelle/core/anchor';
import type { Annotation } from '@avrelle/core/wire';
import { layDrawings, type Laid, type Standing } from '../drawing/laid';
import type { Box, Extent, PageAdapter, StreamRange } from '../../page/page-frame';
import { hasWords, type Thread } from '../model/thread';
import { areaBox, boxOfSpot } from '../../page/spot-box';
import type { Draft } from '../model/reader-state';
import type { OpenPage } from './use-page';

/** Where a passage stands on the page: its first line's top, and the end of its last line. */
export interface Place {
  /** True for what is tied to no line. */
  readonly loose?: true;
  readonly top: number;
  readonly endX: number;
  readonly endY: number;
}

export type PlacedBlock = Extent;

const placeOf = (boxes: readonly Box[]): Place | undefined => {
  const first = boxes[0];
  const last = boxes.at(-1);
  return first && last && { top: first.top, endX: last.left + last.width, endY: last.top + last.height };
};

/** Level with the top of an area. Moments stand with their words, a hair apart, so that they keep their order. */
function spotPlace({ adapter }: OpenPage, spot: AreaSpot | TimeSpot | WholeSpot): Place | undefined {
  if (spot.type === 'whole') return { top: 0, endX: 0, endY: 0, loose: true };
  if (spot.type === 'time') return momentPlace(adapter, spot);
  const box = areaBox(adapter, spot);
  return box && { top: box.top, endX: box.left + box.width, endY: box.top + 10 };
}

const placeOfSpot = (page: OpenPage, { anchor }: Annotation): Place | undefined =>
  anchor?.spot && anchor.spot.type !== 'drawn' ? spotPlace(page, anchor.spot) : undefined;

const drawnPlace = ({ box }: Laid): Place => ({
  top: box.top,
  endX: box.left + box.width,
  endY: box.top + Math.min(box.height, 20),
});

function momentPlace(adapter: PageAdapter, { from }: TimeSpot): Place | undefined {
  const { outline } = adapter.stream;
  const cue = outline.findLast((b) => b.locator && 'from' in b.locator && b.locator.from <= from) ?? outline[0];
  const place = cue && placeOf(adapter.boxes(cue));
  return place && { ...place, top: place.top + from / 1_000 };
}

function measure(
  adapter: PageAdapter,
  { start, end }: StreamRange,
  known: Map<string, Place | undefined>,
): Place | undefined {
  const key = `${start} ${end}`;
  if (!known.has(key)) known.set(key, placeOf(adapter.boxes({ start, end })));
  return known.get(key);
}

/** Where a passage without a note stands, near enough for the spine and for going there: as far down its block as it is into its words. */
export function about(blocks: readonly PlacedBlock[], at: number): Place | undefined {
  let low = 0;
  let high = blocks.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (blocks[middle]!.block.end <= at) low = middle + 1;
    else high = middle;
  }
  const found = blocks[low];
  if (!found || found.block.start > at) return undefined;
  const top =
    found.top +
    ((found.bottom - found.top) * (at - found.block.start)) / Math.max(1, found.block.end - found.block.start);
  return { top, endX: 0, endY: top, loose: true };
}

interface Given {
  readonly page: OpenPage | undefined;
  readonly layout: number;
  readonly threads: readonly Thread[];
  readonly expanded: ReadonlySet<string>;
  readonly draft: Draft | undefined;
}

/** Measures passages, drawings and blocks after each layout of the page. What is not shown (outside the main text) has no place. */
export function useLayout({ page, layout, threads, expanded, draft }: Given) {
  const blocks = useMemo(
    (): readonly PlacedBlock[] => (page && layout > 0 ? page.adapter.extents() : []),
    [page, layout],
  );

  /** What has been measured of this layout of the page: a new mark costs as much as itself. */
  const [measured, standing] = useMemo(
    () => [new Map<string, Place | undefined>(), new Map<object, Standing>(), page, layout] as const,
    [page, layout],
  );
  const laid = useMemo(
    () => (page && layout > 0 ? layDrawings(page.adapter, threads, standing) : []),
    [page, layout, threads, standing],
  );
  const level = useMemo(() => {
    const found = new Map<string, Place>(laid.map((each) => [each.thread.root.id, drawnPlace(each)]));
    if (!page || layout === 0) return found;
    for (const thread of threads) {
      const { root, range } = thread;
      if (root.anchor?.spot?.type === 'drawn' && !root.deleted) continue;
      const place =
        placeOfSpot(page, root) ??
        (hasWords(thread) ? measure(page.adapter, range, measured) : about(blocks, range.start));
      if (place) found.set(root.id, place);
    }
    return found;
  }, [page, layout, threads, laid, blocks, measured]);
  /** Those that are open are measured too: what is opened costs as much as itself. */
  const places = useMemo(() => {
    const near = page
      ? threads.filter(
          (t) => expanded.has(t.root.id) && level.get(t.root.id)?.loose && t.root.anchor?.spot?.type !== 'whole',
        )
      : [];
    return near.length === 0
      ? level
      : new Map([
          ...level,
          ...near.flatMap((t): [string, Place][] => {
            const place = measure(page!.adapter, t.range, measured);
            return place ? [[t.root.id, place]] : [];
          }),
        ]);
  }, [page, threads, expanded, level, measured]);

  const draftPlace = useMemo(
    () =>
      page && draft && layout > 0
        ? (draft.spot && draft.spot.type !== 'drawn' && spotPlace(page, draft.spot)) ||
          placeOf(page.adapter.boxes(draft.range))
        : undefined,
    [page, draft, layout],
  );
  const draftBox = useMemo(
    () => (page && draft?.spot && layout > 0 ? boxOfSpot(page.adapter, draft.spot, draft.range) : undefined),
    [page, draft, layout],
  );

  return { places, draftPlace, draftBox, blocks, laid };
}
