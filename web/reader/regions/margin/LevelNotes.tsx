import { useCallback, useMemo, useState } from 'react';
import { useDocument } from '../../document/document-context';
import type { Place } from '../../document/use-layout';
import { READER_NOTES } from '../../landmarks';
import { useReader } from '../../session/reader-context';
import { Connectors, type Connector } from './Connectors';
import { DraftForm } from './DraftForm';
import { FirstSteps, useFirstStep } from './FirstSteps';
import { isNear, Margin, sameMap, type MarginItem } from './Margin';
import { MarginTop, type NotesProps } from './MarginTop';
import { ThreadCard } from './ThreadCard';
import { UnfinishedCard } from './UnfinishedCard';

const DRAFT = 'draft';
const FIRST_STEPS = 'first steps';
/** How much of the margin's height its head takes, in pixels. */
const HEAD = 42;

/** Notes level with their passages, and the hairlines that tie them. */
export function LevelNotes({ notes, unfinished }: NotesProps) {
  const view = useReader((s) => s.scroll);
  const writing = useReader((s) => s.draft !== undefined);
  const current = useReader((s) => s.current);
  const [tops, setTops] = useState<ReadonlyMap<string, number>>(new Map());
  const onPlaced = useCallback(
    (placed: ReadonlyMap<string, number>) => setTops((before) => (sameMap(before, placed) ? before : placed)),
    [],
  );
  const items = useItems({ notes, unfinished });
  return (
    <>
      <aside
        id={READER_NOTES}
        tabIndex={-1}
        aria-label="Margin"
        className="steps-back relative border-l border-rule bg-paper"
      >
        <MarginTop notes={notes} unfinished={unfinished} />
        <div className="absolute inset-x-0 top-0">
          <Margin items={items} held={writing ? DRAFT : current} view={view} least={HEAD} onPlaced={onPlaced} />
        </div>
      </aside>
      <ConnectorLayer items={items} tops={tops} />
    </>
  );
}

/** All that stands in the margin, by its height. The same list while one scrolls: it is placed anew only where it changes. */
function useItems({ notes, unfinished }: NotesProps): readonly MarginItem[] {
  const { places, draftPlace } = useDocument();
  const draft = useReader((s) => s.draft);
  const { step, done } = useFirstStep();
  return useMemo(() => {
    const items: MarginItem[] = [
      ...notes.map((t) => ({ id: t.root.id, y: places.get(t.root.id)!.top, body: () => <ThreadCard thread={t} /> })),
      ...unfinished.map((note) => ({ id: note.key, y: note.top ?? 0, body: () => <UnfinishedCard note={note} /> })),
    ];
    if (draft && draftPlace) items.push({ id: DRAFT, y: draftPlace.top, body: () => <DraftForm draft={draft} /> });
    if (step) {
      // Level with the first mark, once there is one.
      const y = [...places.values()][0]?.top ?? 0;
      items.push({ id: FIRST_STEPS, y, body: () => <FirstSteps step={step} onDone={done} /> });
    }
    return items.sort((a, b) => a.y - b.y);
  }, [notes, unfinished, places, draft, draftPlace, step, done]);
}

interface LayerProps {
  readonly items: readonly MarginItem[];
  /** Where each note stands by now. */
  readonly tops: ReadonlyMap<string, number>;
}

/** Right of the column of text, in pixels, hairlines leave their lines. */
const TURN = 18;
/** The least that is left between there and the margin, in pixels: no words stand so far right. */
const LEAST_RUN = 14;

/** Lies over the page column; measured by its own box. */
function ConnectorLayer({ items, tops }: LayerProps) {
  const { places, draftPlace, height, columnRight, asPictures } = useDocument();
  // Where the page is laid out in its own way, its words may reach to its very edge.
  const kept = useReader((s) => s.view === 'kept');
  const turnAt = asPictures || kept ? Infinity : columnRight + TURN;
  const view = useReader((s) => s.scroll);
  const expanded = useReader((s) => s.expanded);
  const [width, setWidth] = useState(0);
  const hold = useCallback((node: HTMLDivElement | null) => {
    if (!node) return;
    const observer = new ResizeObserver(() => setWidth(node.clientWidth));
    observer.observe(node);
    return () => observer.disconnect();
  }, []);
  const placeOf = (id: string): Place | undefined => (id === DRAFT ? draftPlace : places.get(id));
  const ties = items.flatMap(({ id }): Connector[] => {
    const place = placeOf(id);
    const noteTop = tops.get(id);
    if (!place || place.loose || noteTop === undefined || !isNear(noteTop, view)) return [];
    return [{ id, place, noteTop, open: id === DRAFT || expanded.has(id) }];
  });
  return (
    <div ref={hold} className="steps-back pointer-events-none absolute inset-y-0 left-0 right-[360px]">
      <Connectors ties={ties} width={width} height={height} turn={Math.min(turnAt, width - LEAST_RUN)} />
    </div>
  );
}
