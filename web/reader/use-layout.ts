import { useMemo } from 'react';
import type { Block } from '@avrelle/core/text';
import type { OpenPage } from './use-page';
import type { Box, StreamRange } from './page-frame';
import type { Thread } from './shown';

/** Where a passage stands on the page: its first line's top, and the end of its last line. */
export interface Place {
  readonly top: number;
  readonly endX: number;
  readonly endY: number;
}

export interface PlacedBlock {
  readonly block: Block;
  readonly top: number;
  readonly bottom: number;
}

const placeOf = (boxes: readonly Box[]): Place | undefined => {
  const first = boxes[0], last = boxes.at(-1);
  return first && last && { top: first.top, endX: last.left + last.width, endY: last.top + last.height };
};

/** Measures passages and blocks after each layout of the page. What is not shown (outside the main text) has no place. */
export function useLayout(page: OpenPage | undefined, layout: number, threads: readonly Thread[], draft: StreamRange | undefined) {
  const places = useMemo(() => {
    const found = new Map<string, Place>();
    if (!page || layout === 0) return found;
    for (const { root, range } of threads) {
      const place = placeOf(page.adapter.boxes(range));
      if (place) found.set(root.id, place);
    }
    return found;
  }, [page, layout, threads]);

  const draftPlace = useMemo(() => (page && draft && layout > 0 ? placeOf(page.adapter.boxes(draft)) : undefined), [page, draft, layout]);

  const blocks = useMemo((): readonly PlacedBlock[] => {
    if (!page || layout === 0) return [];
    return page.adapter.stream.outline.flatMap((block) => {
      const boxes = page.adapter.boxes(block);
      return boxes.length ? [{ block, top: boxes[0]!.top, bottom: boxes.at(-1)!.top + boxes.at(-1)!.height }] : [];
    });
  }, [page, layout]);

  return { places, draftPlace, blocks };
}
