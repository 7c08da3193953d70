import { useCallback, useMemo, useState, type ReactNode } from 'react';
import type { Annotation } from '@avrelle/core/wire';
import { count } from '../ui/when';
import { Margin, sameMap, type MarginItem } from './Margin';
import { NoteCard, type NoteActions } from './NoteCard';
import { NoteForm, type NoteValues } from './NoteForm';
import type { Draft } from './Reader';
import { hasWords, type Thread } from './shown';
import { Ties, type Tie } from './Ties';
import type { Place } from './use-layout';

interface Props {
  readonly wide: boolean;
  readonly height: number;
  readonly threads: readonly Thread[];
  readonly places: ReadonlyMap<string, Place>;
  readonly opened: ReadonlySet<string>;
  readonly held: string | undefined;
  readonly draft: Draft | undefined;
  readonly draftPlace: Place | undefined;
  readonly me: string;
  readonly actions: NoteActions;
  readonly pageLoaded: boolean;
  audienceOf(annotation: Annotation): ReactNode;
  readonly draftAudience: ReactNode;
  readonly draftKey: string;
  onSetDown(values: NoteValues): void;
  onDiscard(): void;
  onWholePage(): void;
}

const DRAFT = 'draft', TURN = 690;

/** The right margin: notes level with their passages and tied to them; below the page where there is no room beside it. */
export function MarginColumn(props: Props) {
  const { wide, threads, places, opened, held, draft, draftPlace, me, actions, pageLoaded } = props;
  const [tops, setTops] = useState<ReadonlyMap<string, number>>(new Map());
  const onPlaced = useCallback((placed: ReadonlyMap<string, number>) => setTops((before) => (sameMap(before, placed) ? before : placed)), []);
  const notes = useMemo(() => threads.filter((t) => places.has(t.root.id) && (hasWords(t) || opened.has(t.root.id))), [threads, places, opened]);
  const hidden = pageLoaded ? threads.filter((t) => !places.has(t.root.id)).length : 0;

  const form = draft && <div className="border border-strong bg-sheet px-3 py-2 [border-top:3px_solid_var(--tide)]"><NoteForm key={`${draft.range.start}-${draft.range.end}`} initial={{ kind: draft.kind, note: draft.note, tags: [] }} audience={props.draftAudience} draftKey={props.draftKey} onSave={props.onSetDown} onCancel={props.onDiscard} /></div>;
  const card = (t: Thread) => <NoteCard thread={t} me={me} open={opened.has(t.root.id)} actions={actions} audience={props.audienceOf(t.root)} />;
  const items: MarginItem[] = [...notes.map((t) => ({ id: t.root.id, y: places.get(t.root.id)!.top, body: card(t) })), ...(form && draftPlace ? [{ id: DRAFT, y: draftPlace.top, body: form }] : [])].sort((a, b) => a.y - b.y);
  const outside = hidden > 0 && <p className="px-6 pt-3 text-[13px] text-soft">{count(hidden, 'mark stands', 'marks stand')} outside the main text. <button className="act" onClick={props.onWholePage}>Show the whole page</button></p>;

  if (!wide) {
    const touched = notes.find((t) => t.root.id === held && opened.has(t.root.id));
    const sheet = form ?? (touched && card(touched));
    return (
      <section aria-label="Notes" className="border-t border-strong bg-paper px-2 pb-6">
        {outside}
        {sheet && <div className="fixed inset-x-0 bottom-[50px] z-30 max-h-[55vh] overflow-y-auto border-t border-strong bg-paper p-2">{sheet}</div>}
        <h2 className="px-3 pt-4 text-[17px]">{count(notes.length, 'note')}</h2>
        {notes.map((t) => t !== touched && <div key={t.root.id} className="pt-3">{card(t)}</div>)}
      </section>
    );
  }
  const ties: Tie[] = items.flatMap(({ id }) => {
    const place = id === DRAFT ? draftPlace : places.get(id), noteTop = tops.get(id);
    return place && noteTop !== undefined ? [{ id, place, noteTop, open: id === DRAFT || opened.has(id) }] : [];
  });
  return (
    <>
      <aside aria-label="Margin" className="relative border-l border-rule bg-paper">
        {outside && <div className="absolute inset-x-0 top-0 z-10 bg-paper">{outside}</div>}
        <Margin items={items} held={draft ? DRAFT : held} onPlaced={onPlaced} />
      </aside>
      <TieLayer ties={ties} height={props.height} />
    </>
  );
}

/** Lies over the page column; measured by its own box. */
function TieLayer({ ties, height }: { ties: readonly Tie[]; height: number }) {
  const [width, setWidth] = useState(0);
  const hold = useCallback((node: HTMLDivElement | null) => {
    if (!node) return;
    const observer = new ResizeObserver(() => setWidth(node.clientWidth));
    observer.observe(node);
    return () => observer.disconnect();
  }, []);
  return <div ref={hold} className="pointer-events-none absolute inset-y-0 left-0 right-[360px]"><Ties ties={ties} width={width} height={height} turn={Math.min(TURN, width - 60)} /></div>;
}
