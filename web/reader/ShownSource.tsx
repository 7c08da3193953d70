import { lazy, useEffect, useMemo, type ReactNode } from 'react';
import { spotName } from '@avrelle/core/anchor';
import type { Annotation, AnnotationId, SourceId } from '@avrelle/core/wire';
import type { StreamRange } from '../page/page-frame';
import { useAnnotations, useClasses, useSource, useSourceText } from '../data/queries';
import { State } from '../ui/State';
import { useDocument } from './document/document-context';
import { DocumentProvider } from './document/DocumentProvider';
import { fetchFaces } from './document/page-style';
import { Areas } from './regions/page/Areas';
import { Frame } from './regions/page/Frame';
import { PaintedMarks } from './regions/page/PaintedMarks';
import { DrawingLayer } from './regions/drawing/DrawingLayer';
import { Recording } from './regions/recording/Recording';
import { useSession } from './session/reader-context';
import { SessionProvider, type Opened } from './session/SessionProvider';
import { ToolsProvider } from './session/ToolsProvider';
import { useTools } from './session/tools-context';

const PdfPages = lazy(() => import('./document/pdf/PdfPages'));

interface Props {
  readonly sourceId: SourceId;
  /** The annotation that it is shown for: no other mark stands on it. */
  readonly at: AnnotationId | null;
  /** Which others stand on it, too; always the same function. */
  readonly also?: (annotation: Annotation) => boolean;
  /** What steps forward where the annotation is not there. */
  readonly range?: StreamRange | null;
  /** What lies over the page and says where on it to go; it goes to the annotation itself where there is nothing. */
  readonly children?: ReactNode;
}

const NO_OTHER = (): boolean => false;

/** A source as it is shown to others: its page at one mark, without margin and tools. */
export function ShownSource({ sourceId, at, also = NO_OTHER, range = null, children }: Props) {
  const source = useSource(sourceId);
  const text = useSourceText(sourceId, source.data?.versionId, undefined);
  const annotations = useAnnotations(sourceId);
  const classes = useClasses();
  useEffect(fetchFaces, []);
  const opened = useMemo(
    (): Opened | undefined =>
      source.data && text.data && annotations.data && classes.data
        ? {
            source: source.data,
            text: text.data,
            annotations: annotations.data.filter((one) => one.id === at || also(one)),
            classes: classes.data,
          }
        : undefined,
    [source.data, text.data, annotations.data, classes.data, at, also],
  );
  if (!opened)
    return <State of={[source, text, annotations, classes].find((one) => !one.data || one.error) ?? source} />;
  return (
    <SessionProvider key={opened.source.versionId} opened={opened}>
      <DocumentProvider>
        <ToolsProvider shown={{ at: children ? null : at }}>
          <div className="grid h-full min-h-0 grid-rows-[auto_minmax(0,1fr)]">
            <div>
              <Recording isShown />
              <Moment at={at} />
            </div>
            <Page at={at} range={range}>
              {children}
            </Page>
          </div>
        </ToolsProvider>
      </DocumentProvider>
    </SessionProvider>
  );
}

/** Of a recording, what is shown is heard. */
function Moment({ at }: Pick<Props, 'at'>) {
  const { annotations } = useSession();
  const { noteActions } = useTools();
  const spot = annotations.find(({ id }) => id === at)?.anchor?.spot;
  if (spot?.type !== 'time' || !noteActions.playFrom) return null;
  return (
    <p className="border-b border-rule bg-paper px-[30px] py-1.5 text-[14px]">
      <button className="act" onClick={() => noteActions.playFrom?.(spot.from)}>
        Play {spotName(spot)}
      </button>
    </p>
  );
}

function Page({ at, range: given, children }: Pick<Props, 'at' | 'children'> & { readonly range: StreamRange | null }) {
  const { source, store, inText } = useSession();
  const { page, layout, height, scroller, asPictures } = useDocument();
  const range = inText.find(({ root }) => root.id === at)?.range ?? given ?? undefined;
  useEffect(() => {
    page?.painter.shown(range);
  }, [page, layout, range]);
  return (
    <div
      ref={scroller}
      data-shown-page=""
      role="region"
      aria-label="Page"
      tabIndex={0}
      className="relative min-h-0 overflow-y-auto overflow-x-hidden bg-sheet"
      onScroll={({ currentTarget: { scrollTop, clientHeight } }) =>
        store.dispatch({ type: 'scroll', scroll: { top: scrollTop, height: clientHeight }, pageHeight: height })
      }
    >
      <PaintedMarks />
      <Frame>
        {asPictures && <PdfPages address={`/files/${source.versionId}`} password={source.facts.password} />}
        <Areas />
        <DrawingLayer />
        {children}
      </Frame>
    </div>
  );
}
