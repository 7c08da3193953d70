import { useCallback, useState } from 'react';
import type { SourceDetail } from '@avrelle/core/wire';
import type { View } from '../model/reader-state';
import { isOverPicture } from './page-style';
import { pageWidth, unitFor } from './pdf/use-pages';

/** How wide the frame is, how much smaller it is shown, and for a PDF how large a point is. */
export interface FrameSize {
  /** Pixels of its own; undefined for as wide as there is room. */
  readonly width: number | undefined;
  readonly scale: number;
  readonly unit: number;
}

/** Letter paper, in points: what is reckoned with until the pages are known. */
const USUAL_POINTS = 595;

/**
 * A page kept for a phone, tablet or desk has that width and is shown smaller where there is less room; the pages of a
 * PDF fill the room, times the zoom.
 */
export function useFrameSize(source: SourceDetail, view: View) {
  const [room, setRoom] = useState(0);
  const [points, setPoints] = useState(USUAL_POINTS);
  const [zoom, setZoom] = useState(1);
  const hold = useCallback((node: HTMLElement | null) => {
    if (!node) return;
    const observer = new ResizeObserver(() => setRoom(node.clientWidth));
    observer.observe(node);
    return () => observer.disconnect();
  }, []);
  const measure = useCallback((document: Document) => setPoints(pageWidth(document)), []);
  return { hold, measure, zoom, setZoom, size: sizeOf({ source, view, room, points, zoom }) };
}

function sizeOf({
  source,
  view,
  room,
  points,
  zoom,
}: {
  source: SourceDetail;
  view: View;
  room: number;
  points: number;
  zoom: number;
}): FrameSize {
  if (room === 0) return { width: undefined, scale: 1, unit: 1 };
  if (isOverPicture({ view, kind: source.kind })) {
    const unit = unitFor(room, points, zoom);
    return { width: Math.max(room, Math.ceil(points * unit)), scale: 1, unit };
  }
  if (view === 'kept' && source.width !== null)
    return { width: source.width, scale: Math.min(1, room / source.width), unit: 1 };
  return { width: undefined, scale: 1, unit: 1 };
}
