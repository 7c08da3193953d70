import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import {
  closestCenter,
  DndContext,
  DragOverlay,
  KeyboardCode,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type Announcements,
  type CollisionDetection,
  type DragEndEvent,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import { Link } from 'react-router';
import { narrowed } from '@avrelle/core/query';
import {
  KIND_WORDS,
  READING_STATES,
  STATE_NAMES,
  STATE_WORDS,
  type FoundSource,
  type ReadingState,
  type SourceSort,
} from '@avrelle/core/wire';
import { useSources } from '../data/queries';
import { leftOf } from '../ui/SourceRow';
import { Strand } from '../ui/Strand';
import type { Changing } from './use-changing';
import type { Chosen } from './use-chosen';
import { SHOWN_WHEN_NEAR, Tick } from '../ui/Tick';

interface Props {
  readonly q: string;
  readonly sort: SourceSort | undefined;
  readonly chosen: Chosen;
  readonly changing: Changing;
  actions(source: FoundSource): ReactNode;
}

const MORE = 60;

const stateNamed = (id: unknown): ReadingState | undefined => READING_STATES.find((s) => s === id);
/** By pointer what lies under it; by keys, which have none, the column whose middle is nearest. */
const under: CollisionDetection = (given) => (given.pointerCoordinates ? pointerWithin(given) : closestCenter(given));

/** The arrow keys go from column to column; what was aimed at counts, however slowly it is drawn. */
function useColumnKeys(): { readonly toColumn: KeyboardCoordinateGetter; begin(from: ReadingState): void } {
  const aim = useRef<ReadingState>('to_read');
  return useMemo(
    () => ({
      begin: (from) => {
        aim.current = from;
      },
      toColumn: (event, { currentCoordinates, context: { droppableRects } }) => {
        const step = { [KeyboardCode.Right]: 1, [KeyboardCode.Left]: -1 }[event.code as string];
        const to = step && READING_STATES[READING_STATES.indexOf(aim.current) + step];
        const column = to && droppableRects.get(to);
        if (!column) return undefined;
        event.preventDefault();
        aim.current = to;
        return { ...currentCoordinates, x: column.left };
      },
    }),
    [],
  );
}

const titleOf = ({ active }: Pick<DragEndEvent, 'active'>): string => (active.data.current as FoundSource).title;
const columnOf = (id: unknown): string => {
  const state = stateNamed(id);
  return state ? STATE_WORDS[state] : 'no column';
};
const announcements: Announcements = {
  onDragStart: (given) => `${titleOf(given)} is picked up.`,
  onDragOver: (given) => `${titleOf(given)} is over ${columnOf(given.over?.id)}.`,
  onDragEnd: (given) => `${titleOf(given)} is put down in ${columnOf(given.over?.id)}.`,
  onDragCancel: (given) => `${titleOf(given)} stays where it was.`,
};
const screenReaderInstructions = {
  draggable:
    'Press Space to pick it up, the left and right arrow keys to choose a column, Space to put it down, Escape to leave it.',
};

/** Moved sideways where it is narrow, by keys as well, also while nothing stands in it. */
const BOARD = [
  'grid min-h-full grid-cols-4 divide-x divide-rule',
  'max-[900px]:grid-cols-[repeat(4,260px)] max-[900px]:overflow-x-auto',
].join(' ');

/** A column for each state of reading; what is dragged to another, by pointer or by keys, changes its state. */
export default function BoardView({ q, sort, chosen, changing, actions }: Props) {
  const [held, setHeld] = useState<FoundSource>();
  const [landed, setLanded] = useState<Landed>();
  const keys = useColumnKeys();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: keys.toColumn }),
  );
  const begin = (source: FoundSource): void => {
    keys.begin(source.state);
    setHeld(source);
  };
  const onDragEnd = ({ over, activatorEvent }: DragEndEvent): void => {
    const to = stateNamed(over?.id);
    setHeld(undefined);
    if (!held || !to || to === held.state) return;
    if (activatorEvent.type === 'keydown') setLanded({ id: held.id, to });
    void changing.state(chosen.has(held.id) ? chosen.rows : [held], to);
  };
  const others = held && chosen.has(held.id) ? chosen.rows.length - 1 : 0;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={under}
      accessibility={{ announcements, screenReaderInstructions }}
      onDragStart={({ active }) => begin(active.data.current as FoundSource)}
      onDragCancel={() => setHeld(undefined)}
      onDragEnd={onDragEnd}
    >
      <div role="group" aria-label="Board" tabIndex={0} className={BOARD}>
        {READING_STATES.map((state) => (
          <Column
            key={state}
            state={state}
            landed={landed}
            {...{ q, sort, chosen, actions, onFocused: () => setLanded(undefined) }}
          />
        ))}
      </div>
      <DragOverlay>
        {held && (
          <div className="over px-3 py-2">
            <b className="font-read">{held.title}</b>
            {others > 0 && <span className="text-soft"> and {others} more</span>}
          </div>
        )}
      </DragOverlay>
    </DndContext>
  );
}

/** What was put down by keys, and has the focus again once it is there. */
interface Landed {
  readonly id: string;
  readonly to: ReadingState;
}

interface ColumnProps extends Pick<Props, 'q' | 'sort' | 'chosen' | 'actions'> {
  readonly state: ReadingState;
  readonly landed: Landed | undefined;
  onFocused(): void;
}

function Column({ state, q, sort, chosen, actions, landed, onFocused }: ColumnProps) {
  const [limit, setLimit] = useState(MORE);
  const found = useSources({ q: narrowed(q, `is:${STATE_NAMES[state]}`), sort, limit });
  const { setNodeRef, isOver } = useDroppable({ id: state });
  const { sources = [], total } = found.data ?? {};
  const more = (total ?? 0) - sources.length;
  return (
    <section
      ref={setNodeRef}
      aria-label={STATE_WORDS[state]}
      className={`min-w-0 px-3 pb-6 pt-2 ${isOver ? 'bg-wash' : ''}`}
    >
      <h2 className="!font-ui flex justify-between px-1 pb-1 text-[14px]">
        {STATE_WORDS[state]}
        <span className="font-normal text-faint">{total ?? ''}</span>
      </h2>
      <ul>
        {sources.map((source) => (
          <Card
            key={source.id}
            source={source}
            chosen={chosen}
            focused={source.id === landed?.id && state === landed.to}
            onFocused={onFocused}
          >
            {actions(source)}
          </Card>
        ))}
      </ul>
      {more > 0 && (
        <button className="act px-1 py-2 text-[14px]" onClick={() => setLimit(limit + MORE)}>
          {more} more
        </button>
      )}
      {total === 0 && (
        <p className="px-1 py-2 text-[13px] text-faint">
          {q ? 'Nothing here fits the search.' : 'Drag a source here.'}
        </p>
      )}
    </section>
  );
}

interface CardProps {
  readonly source: FoundSource;
  readonly chosen: Chosen;
  readonly focused: boolean;
  readonly children: ReactNode;
  onFocused(): void;
}

function Card({ source, chosen, focused, onFocused, children }: CardProps) {
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: source.id, data: source });
  const handle = useRef<HTMLButtonElement>(null);
  const isChosen = chosen.has(source.id);
  useEffect(() => {
    if (!focused) return;
    handle.current?.focus();
    onFocused();
  }, [focused, onFocused]);
  return (
    <li
      ref={setNodeRef}
      className={`group border-t border-rule px-1 py-2 ${isDragging ? 'opacity-40' : ''} ${isChosen ? 'bg-wash' : ''}`}
    >
      <div className="flex items-baseline gap-1.5">
        <button
          ref={handle}
          {...attributes}
          {...listeners}
          aria-label={`Move ${source.title} to another state`}
          title="Drag to another state, or press Space and the arrows"
          className="cursor-grab touch-none text-faint"
        >
          ⋮
        </button>
        <Link
          data-row
          to={`/source/${source.id}`}
          dir="auto"
          lang={source.language || undefined}
          className="reach min-w-0 flex-1 font-read text-[15px] font-semibold leading-[19px]"
        >
          {source.title}
        </Link>
        <Tick
          label={`Choose ${source.title}`}
          checked={isChosen}
          onChange={() => chosen.toggle(source)}
          className={isChosen ? '' : SHOWN_WHEN_NEAR}
        />
      </div>
      <p className="mt-0.5 truncate pl-[11px] text-[13px] text-soft">
        {[source.author || source.site || KIND_WORDS[source.kind], leftOf(source)].join(' · ')}
      </p>
      <div className="flex items-end gap-2 pl-[11px] pt-1">
        <Strand strand={source.strand} width={130} />
        {children}
      </div>
    </li>
  );
}
