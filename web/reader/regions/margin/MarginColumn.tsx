import type { PersonId, SourceId } from '@avrelle/core/wire';
import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { plainWords } from '@avrelle/core/markdown';
import type { Unfinished } from '../../../data/unfinished';
import { count, when } from '../../../ui/when';
import type { StreamRange } from '../../../page/page-frame';
import { hasWords, ordered, type Order, type Thread } from '../../model/thread';
import type { Place } from '../../document/use-layout';
import type { Draft } from '../../session/use-marking';
import { isNear, Margin, sameMap, type MarginItem, type Seen } from './Margin';
import type { NoteActions } from '../../session/note-actions';
import { NoteCard } from './NoteCard';
import { NoteForm, type NoteValues } from './NoteForm';
import { Connectors, type Connector } from './Connectors';

interface Props {
  readonly wide: boolean;
  readonly height: number;
  /** Where hairlines leave their lines: right of the column. */
  readonly turn: number;
  /** The window onto the page, in pixels. */
  readonly view: Seen;
  readonly threads: readonly Thread[];
  readonly places: ReadonlyMap<string, Place>;
  readonly opened: ReadonlySet<string>;
  readonly held: string | undefined;
  readonly order: Order;
  /** Those chosen while several are being chosen. */
  readonly chosen: ReadonlySet<string> | undefined;
  readonly draft: Draft | undefined;
  readonly draftPlace: Place | undefined;
  readonly me: PersonId;
  readonly sourceId: SourceId;
  readonly actions: NoteActions;
  readonly pageLoaded: boolean;
  readonly head: (notes: number) => ReactNode;
  readonly draftAudience: ReactNode;
  /** Notes that were begun and not saved, but for the one at hand. */
  readonly unfinished: readonly UnfinishedNote[];
  onContinue(note: UnfinishedNote): void;
  onSetDown(values: NoteValues): void;
  onLeave(): void;
  onWholePage(): void;
}

const DRAFT = 'draft';
const HEAD = 34;

export type UnfinishedNote = Unfinished & {
  readonly range: StreamRange;
  /** Where its passage stands, as far as that is shown. */ readonly top: number | undefined;
};

/** The right margin: notes level with their passages and tied to them, or in a list of their own; below the page where there is no room beside it. */
export function MarginColumn(props: Props) {
  const { wide, threads, places, opened, held, order, chosen, draft, draftPlace, me, actions, pageLoaded } = props;
  const notes = useMemo(
    () =>
      threads.filter(
        (t) => places.has(t.root.id) && (chosen || order !== 'place' || hasWords(t) || opened.has(t.root.id)),
      ),
    [threads, places, opened, chosen, order],
  );
  const hidden = pageLoaded ? threads.filter((t) => !places.has(t.root.id)).length : 0;

  const form = draft && (
    <div className="border border-strong bg-sheet px-3 py-2 [border-top:3px_solid_var(--tide)]">
      <NoteForm
        key={`${draft.range.start}-${draft.range.end}`}
        sourceId={props.sourceId}
        initial={{ kind: draft.kind, note: draft.note, tags: [] }}
        audience={props.draftAudience}
        slot={actions.slot({ type: 'note', range: draft.range, spot: draft.spot, exact: draft.exact })}
        onSave={props.onSetDown}
        onLeave={props.onLeave}
        onDiscard={(restore) => {
          props.onLeave();
          if (restore) actions.discarded(restore);
        }}
      />
    </div>
  );
  const begun = (note: UnfinishedNote) => (
    <UnfinishedCard
      key={note.key}
      note={note}
      onContinue={() => props.onContinue(note)}
      onDiscard={() => {
        const slot = actions.slot(note.purpose);
        slot.drop();
        actions.discarded(() => {
          slot.write(note);
          slot.settle();
        });
      }}
    />
  );
  const card = (t: Thread) => (
    <NoteCard thread={t} me={me} open={opened.has(t.root.id)} chosen={chosen?.has(t.root.id)} actions={actions} />
  );
  const outside = hidden > 0 && (
    <p className="px-6 py-1.5 text-[13px] text-soft">
      {count(hidden, 'mark stands', 'marks stand')} outside the main text.{' '}
      <button className="act" onClick={props.onWholePage}>
        Show the whole page
      </button>
    </p>
  );

  if (!wide) {
    const touched = notes.find((t) => t.root.id === held && opened.has(t.root.id));
    const sheet = form ?? (touched && card(touched));
    return (
      <section aria-label="Notes" className="steps-back border-t border-strong bg-paper px-2 pb-6">
        {outside}
        {sheet && (
          <div className="fixed inset-x-0 bottom-[50px] z-30 max-h-[55vh] overflow-y-auto border-t border-strong bg-paper p-2">
            {sheet}
          </div>
        )}
        {props.head(notes.length)}
        {props.unfinished.map(begun)}
        {ordered(notes, order).map(
          (t) =>
            t !== touched && (
              <div key={t.root.id} className="pt-3">
                {card(t)}
              </div>
            ),
        )}
      </section>
    );
  }
  const head = (
    <>
      {props.head(notes.length)}
      {outside && <div className="sticky top-[34px] z-10 border-b border-rule bg-paper">{outside}</div>}
    </>
  );
  if (order !== 'place') {
    return (
      <aside aria-label="Margin" className="steps-back relative border-l border-rule bg-paper">
        {head}
        <div
          className="sticky top-[34px] overflow-y-auto px-[10px] pb-6"
          style={{ maxHeight: props.view.height - HEAD }}
        >
          {form && <div className="pt-3">{form}</div>}
          {props.unfinished.map(begun)}
          {ordered(notes, order).map((t) => (
            <div key={t.root.id} className="pt-3">
              {card(t)}
            </div>
          ))}
        </div>
      </aside>
    );
  }
  const items: MarginItem[] = [
    ...notes.map((t) => ({ id: t.root.id, y: places.get(t.root.id)!.top, body: () => card(t) })),
    ...(form && draftPlace ? [{ id: DRAFT, y: draftPlace.top, body: () => form }] : []),
    ...props.unfinished.map((note) => ({ id: note.key, y: note.top ?? 0, body: () => begun(note) })),
  ].sort((a, b) => a.y - b.y);
  return (
    <Level
      items={items}
      head={head}
      held={draft ? DRAFT : held}
      view={props.view}
      height={props.height}
      turn={props.turn}
      placeOf={(id) => (id === DRAFT ? draftPlace : places.get(id))}
      isOpen={(id) => id === DRAFT || opened.has(id)}
    />
  );
}

/** Words that were begun and left: they wait beside their passage. */
function UnfinishedCard({
  note,
  onContinue,
  onDiscard,
}: {
  note: Unfinished;
  onContinue: () => void;
  onDiscard: () => void;
}) {
  return (
    <article
      aria-label="Unfinished note"
      className="border-t border-dashed border-strong px-[13px] pt-[5px] text-[14px]"
    >
      <p className="text-[13px] text-soft">Unfinished note · {when(note.at)}</p>
      <p dir="auto" className="my-0.5 line-clamp-2">
        {plainWords(note.note)}
      </p>
      <p className="flex gap-4 text-[13px]">
        <button className="act" onClick={onContinue}>
          Go on writing
        </button>
        <button className="text-soft hover:text-ink" onClick={onDiscard}>
          Discard
        </button>
      </p>
    </article>
  );
}

interface LevelProps {
  readonly items: readonly MarginItem[];
  readonly head: ReactNode;
  readonly held: string | undefined;
  readonly view: Seen;
  readonly height: number;
  readonly turn: number;
  placeOf(id: string): Place | undefined;
  isOpen(id: string): boolean;
}

/** Notes level with their passages, and the hairlines that tie them. */
function Level({ items, head, held, view, height, turn, placeOf, isOpen }: LevelProps) {
  const [tops, setTops] = useState<ReadonlyMap<string, number>>(new Map());
  const onPlaced = useCallback(
    (placed: ReadonlyMap<string, number>) => setTops((before) => (sameMap(before, placed) ? before : placed)),
    [],
  );
  const ties: Connector[] = items.flatMap(({ id }) => {
    const place = placeOf(id);
    const noteTop = tops.get(id);
    return place && !place.loose && noteTop !== undefined && isNear(noteTop, view)
      ? [{ id, place, noteTop, open: isOpen(id) }]
      : [];
  });
  return (
    <>
      <aside aria-label="Margin" className="steps-back relative border-l border-rule bg-paper">
        {head}
        <div className="absolute inset-x-0 top-0">
          <Margin items={items} held={held} view={view} least={HEAD + 8} onPlaced={onPlaced} />
        </div>
      </aside>
      <ConnectorLayer ties={ties} height={height} turn={turn} />
    </>
  );
}

/** Lies over the page column; measured by its own box. */
function ConnectorLayer({ ties, height, turn }: { ties: readonly Connector[]; height: number; turn: number }) {
  const [width, setWidth] = useState(0);
  const hold = useCallback((node: HTMLDivElement | null) => {
    if (!node) return;
    const observer = new ResizeObserver(() => setWidth(node.clientWidth));
    observer.observe(node);
    return () => observer.disconnect();
  }, []);
  return (
    <div ref={hold} className="steps-back pointer-events-none absolute inset-y-0 left-0 right-[360px]">
      <Connectors ties={ties} width={width} height={height} turn={Math.min(turn, width - 60)} />
    </div>
  );
}
