import { useState, type ReactNode } from 'react';
import { DndContext, DragOverlay, KeyboardSensor, PointerSensor, pointerWithin, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import { Link } from 'react-router';
import { toggled } from '@avrelle/core/query';
import { KIND_WORDS, READING_STATES, STATE_NAMES, STATE_WORDS, type FoundSource, type ReadingState, type SourceSort } from '@avrelle/core/wire';
import { useSources } from '../data/queries';
import { leftOf } from '../ui/SourceRow';
import { Strand } from '../ui/Strand';
import type { Changing } from './use-changing';
import type { Chosen } from './use-chosen';

interface Props {
  readonly q: string;
  readonly sort: SourceSort | undefined;
  readonly chosen: Chosen;
  readonly changing: Changing;
  actions(source: FoundSource): ReactNode;
}

const MORE = 60;

/** A column for each state of reading; what is dragged to another changes its state. */
export default function BoardView({ q, sort, chosen, changing, actions }: Props) {
  const [held, setHeld] = useState<FoundSource>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }), useSensor(KeyboardSensor));
  return (
    <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragStart={({ active }) => setHeld(active.data.current as FoundSource)} onDragCancel={() => setHeld(undefined)}
      onDragEnd={({ over }) => { const to = READING_STATES.find((s) => s === over?.id); setHeld(undefined); if (held && to && to !== held.state) void changing.state(chosen.has(held.id) ? chosen.rows : [held], to); }}>
      <div className="grid min-h-full grid-cols-4 divide-x divide-rule max-[900px]:grid-cols-[repeat(4,260px)] max-[900px]:overflow-x-auto">
        {READING_STATES.map((state) => <Column key={state} state={state} q={q} sort={sort} chosen={chosen} actions={actions} />)}
      </div>
      <DragOverlay>{held && <div className="over px-3 py-2"><b className="font-read">{held.title}</b>{chosen.has(held.id) && chosen.rows.length > 1 && <span className="text-soft"> and {chosen.rows.length - 1} more</span>}</div>}</DragOverlay>
    </DndContext>
  );
}

function Column({ state, q, sort, chosen, actions }: Pick<Props, 'q' | 'sort' | 'chosen' | 'actions'> & { state: ReadingState }) {
  const [limit, setLimit] = useState(MORE), asked = toggled(q, 'is', STATE_NAMES[state]), found = useSources({ q: asked.includes(`is:${STATE_NAMES[state]}`) ? asked : q, sort, limit }), { setNodeRef, isOver } = useDroppable({ id: state });
  return (
    <section ref={setNodeRef} aria-label={STATE_WORDS[state]} className={`min-w-0 px-3 pb-6 pt-2 ${isOver ? 'bg-wash' : ''}`}>
      <h2 className="!font-ui flex justify-between px-1 pb-1 text-[14px]">{STATE_WORDS[state]}<span className="font-normal text-faint">{found.data?.total ?? ''}</span></h2>
      <ul>{found.data?.sources.map((source) => <Card key={source.id} source={source} chosen={chosen}>{actions(source)}</Card>)}</ul>
      {found.data && found.data.total > found.data.sources.length && <button className="act px-1 py-2 text-[14px]" onClick={() => setLimit(limit + MORE)}>{found.data.total - found.data.sources.length} more</button>}
      {found.data?.total === 0 && <p className="px-1 py-2 text-[13px] text-faint">Drag a source here.</p>}
    </section>
  );
}

function Card({ source, chosen, children }: { source: FoundSource; chosen: Chosen; children: ReactNode }) {
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: source.id, data: source });
  return (
    <li ref={setNodeRef} className={`group border-t border-rule px-1 py-2 ${isDragging ? 'opacity-40' : ''} ${chosen.has(source.id) ? 'bg-wash' : ''}`}>
      <div className="flex items-baseline gap-1.5">
        <button {...attributes} {...listeners} aria-label={`Move ${source.title} to another state`} title="Drag to another state, or press Space and the arrows" className="cursor-grab touch-none text-faint">⋮</button>
        <Link data-row to={`/source/${source.id}`} dir="auto" lang={source.language || undefined} className="min-w-0 flex-1 font-read text-[15px] font-semibold leading-[19px]">{source.title}</Link>
        <input type="checkbox" aria-label={`Choose ${source.title}`} checked={chosen.has(source.id)} onChange={() => chosen.toggle(source)} className={`accent-[var(--tide)] ${chosen.has(source.id) ? '' : 'opacity-0 focus-visible:opacity-100 group-hover:opacity-100'}`} />
      </div>
      <p className="mt-0.5 truncate pl-[11px] text-[13px] text-soft">{[source.author || source.site || KIND_WORDS[source.kind], leftOf(source)].join(' · ')}</p>
      <div className="flex items-end gap-2 pl-[11px] pt-1"><Strand strand={source.strand} width={130} />{children}</div>
    </li>
  );
}
