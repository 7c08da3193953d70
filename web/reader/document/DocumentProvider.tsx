import { useEffect, useMemo, type ReactNode } from 'react';
import { useReader, useSession } from '../session/reader-context';
import { DocumentContext, type DocumentView } from './document-context';
import { isOverPicture } from './page-style';
import { useFittedWords } from './pdf/use-pages';
import { useFrameSize } from './use-frame-size';
import { useLayout } from './use-layout';
import { usePage, type OpenPage } from './use-page';
import { useScroller } from './use-scroller';
import { useType } from './use-type';

/** Opens the document, sets it, and measures where everything stands, for all parts of the reading view. */
export function DocumentProvider({ children }: { readonly children: ReactNode }) {
  const { source } = useSession();
  const view = useReader((s) => s.view);
  const [type, setType] = useType(source.kind);
  const { hold, measure, zoom, setZoom, size } = useFrameSize(source, view);
  const { page, height, layout, onLoad } = usePage({ view, kind: source.kind, unit: size.unit, type }, size.scale);
  const asPictures = isOverPicture({ view, kind: source.kind });
  useFittedWords(page, size.unit, asPictures);
  useEffect(() => {
    if (page && source.kind === 'pdf') measure(page.adapter.document);
  }, [page, source.kind, measure]);
  const standing = useStanding(page, layout);
  const scrolling = useScroller(page);
  const columnRight = rightOf(page, type.measure);
  const value = useMemo(
    (): DocumentView => ({
      ...{ page, layout, height, size, zoom, setZoom, hold, onLoad, type, setType, asPictures, columnRight },
      ...standing,
      ...scrolling,
    }),
    [
      page,
      layout,
      height,
      size,
      zoom,
      setZoom,
      hold,
      onLoad,
      type,
      setType,
      asPictures,
      columnRight,
      standing,
      scrolling,
    ],
  );
  return <DocumentContext.Provider value={value}>{children}</DocumentContext.Provider>;
}

function useStanding(page: OpenPage | undefined, layout: number) {
  const { visible } = useSession();
  const expanded = useReader((s) => s.expanded);
  const draft = useReader((s) => s.draft);
  const { blocks, places, laid, draftPlace, draftBox } = useLayout({ page, layout, threads: visible, expanded, draft });
  return useMemo(() => ({ blocks, places, laid, draftPlace, draftBox }), [blocks, places, laid, draftPlace, draftBox]);
}

/** Beside the page number or time on its left and the margin's connectors on its right. */
const ASIDE = 300;
const LEFT = 72;
const LEAST_RIGHT = 24;

function rightOf(page: OpenPage | undefined, measure: number): number {
  const room = page?.adapter.document.documentElement.clientWidth ?? 0;
  return Math.min(Math.max(0, (room - measure - ASIDE) / 2) + LEFT + measure, Math.max(0, room - LEAST_RIGHT));
}
