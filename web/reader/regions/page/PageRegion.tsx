import { lazy } from 'react';
import { useDocument } from '../../document/document-context';
import { useReader, useSession } from '../../session/reader-context';
import { DrawingLayer } from '../drawing/DrawingLayer';
import { MarginColumn } from '../margin/MarginColumn';
import { Areas } from './Areas';
import { ColumnEdge } from './ColumnEdge';
import { Frame } from './Frame';
import { OpenRangeHandles } from './OpenRangeHandles';
import { PaintedMarks } from './PaintedMarks';

const PdfPages = lazy(() => import('../../document/pdf/PdfPages'));

/** A margin needs some height, even beside a page of one line; in pixels. */
const LEAST_HEIGHT = 200;

/** The document in its frame with what lies over it, and the notes beside it: they scroll together. */
export function PageRegion() {
  const { source, store } = useSession();
  const { page, height, scroller, asPictures } = useDocument();
  const view = useReader((s) => s.view);
  return (
    <div
      ref={scroller}
      className="relative min-h-0 overflow-y-auto overflow-x-hidden bg-sheet"
      onScroll={({ currentTarget: { scrollTop, clientHeight } }) =>
        store.dispatch({ type: 'scroll', scroll: { top: scrollTop, height: clientHeight }, pageHeight: height })
      }
    >
      <div
        className="relative grid min-h-full grid-cols-[1fr_360px] max-[900px]:grid-cols-1 [[data-focus]_&]:grid-cols-1"
        style={{ minHeight: `max(100%, ${Math.max(height, LEAST_HEIGHT)}px)` }}
      >
        <PaintedMarks />
        <Frame>
          {page && view === 'main' && <ColumnEdge />}
          {asPictures && <PdfPages address={`/files/${source.versionId}`} password={source.facts.password} />}
          <Areas />
          <DrawingLayer />
          <OpenRangeHandles />
        </Frame>
        <MarginColumn />
      </div>
    </div>
  );
}
