import type { CSSProperties, ReactNode } from 'react';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';

/** A drag begins after so many pixels: less is a click. */
const BEGINS = 5;

interface Props {
  /** In their order. */
  readonly ids: readonly string[];
  readonly disabled?: boolean;
  /** What each is called, for who does not see it move. */
  nameOf(id: string): string;
  /** One was put to the place of another. */
  onMove(id: string, over: string): void;
  readonly children: ReactNode;
}

/** Rows that are put in an order by dragging, or by Space and the arrow keys. */
export function SortableList({ ids, disabled = false, nameOf, onMove, children }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: BEGINS } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    if (over && active.id !== over.id) onMove(String(active.id), String(over.id));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={{ announcements: announcing(ids, nameOf), screenReaderInstructions: INSTRUCTIONS }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy} disabled={disabled}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

const INSTRUCTIONS = {
  draggable: 'Space takes hold of it. The arrow keys move it, Space puts it down, Escape leaves it where it was.',
};

function announcing(ids: readonly string[], nameOf: Props['nameOf']): Announcements {
  const name = (id: UniqueIdentifier): string => nameOf(String(id));
  const place = (id: UniqueIdentifier): string => `place ${ids.indexOf(String(id)) + 1} of ${ids.length}`;
  return {
    onDragStart: ({ active }) => `${name(active.id)} taken, from ${place(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `${name(active.id)} would stand at ${place(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) => `${name(active.id)} put at ${place((over ?? active).id)}.`,
    onDragCancel: ({ active }) => `${name(active.id)} stays where it was.`,
  };
}

interface Row {
  readonly ref: (node: HTMLElement | null) => void;
  readonly style: CSSProperties;
  readonly isDragging: boolean;
  /** By which it is taken hold of; `name` is what is moved, `look` where it stands and when it is seen. */
  grip(name: string, look?: string): ReactNode;
}

/** One row of such a list. */
export function useSortableRow(id: string): Row {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  return {
    ref: setNodeRef,
    style: { transform: CSS.Translate.toString(transform), ...(transition ? { transition } : {}) },
    isDragging,
    grip: (name, look = 'w-4 opacity-60 hover:opacity-100 focus-visible:opacity-100') => (
      <button
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
        title="Drag, or press Space and the arrows"
        className={`cursor-grab touch-none text-faint ${look}`}
      >
        ⋮
      </button>
    ),
  };
}
