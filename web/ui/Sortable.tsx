import type { CSSProperties, ReactNode } from 'react';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
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
  /** One was put to the place of another. */
  onMove(id: string, over: string): void;
  readonly children: ReactNode;
}

/** Rows that are put in an order by dragging, or by Space and the arrow keys. */
export function SortableList({ ids, disabled = false, onMove, children }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: BEGINS } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    if (over && active.id !== over.id) onMove(String(active.id), String(over.id));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy} disabled={disabled}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

interface Row {
  readonly ref: (node: HTMLElement | null) => void;
  readonly style: CSSProperties;
  readonly isDragging: boolean;
  /** By which it is taken hold of; `name` is what is moved. */
  grip(name: string): ReactNode;
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
    grip: (name) => (
      <button
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
        title="Drag, or press Space and the arrows"
        className="w-4 cursor-grab touch-none text-faint opacity-60 hover:opacity-100 focus-visible:opacity-100"
      >
        ⋮
      </button>
    ),
  };
}
