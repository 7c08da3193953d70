import { useState, type ReactNode } from 'react';
import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useQueryClient } from '@tanstack/react-query';
import type { SavedSearch } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { renew } from '../data/queries';
import { useWrite } from '../data/use-write';
import { useMessages } from '../ui/Messages';

/** Saved searches in an order of one's own, by dragging or by keys; those of a class come after them. */
export default function SearchOrder({
  searches,
  children,
}: {
  searches: readonly SavedSearch[];
  children: (search: SavedSearch) => ReactNode;
}) {
  const client = useQueryClient();
  const put = useWrite('PUT /api/searches');
  const messages = useMessages();
  const own = searches.filter((s) => s.owned);
  const [order, setOrder] = useState<readonly string[]>();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ordered = order ? order.flatMap((id) => own.find((s) => s.id === id) ?? []) : own;
  const move = async (ids: readonly string[]): Promise<void> => {
    setOrder(ids);
    await put.send({ body: { ids } }).catch((error: unknown) => messages.warn(wordsOf(error)));
    await renew(client, 'outline');
    setOrder(undefined);
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        const ids = ordered.map((s) => s.id);
        const to = over ? ids.indexOf(String(over.id)) : -1;
        const from = ids.indexOf(String(active.id));
        if (to >= 0 && to !== from) void move(arrayMove(ids, from, to));
      }}
    >
      <SortableContext items={ordered.map((s) => s.id)} strategy={verticalListSortingStrategy}>
        {ordered.map((s) => (
          <Sortable key={s.id} id={s.id} name={s.name}>
            {children(s)}
          </Sortable>
        ))}
      </SortableContext>
      {searches.filter((s) => !s.owned).map(children)}
    </DndContext>
  );
}

function Sortable({ id, name, children }: { id: string; name: string; children: ReactNode }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({ id });
  return (
    <div
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className="group/sort relative"
    >
      <button
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
        title="Drag, or press Space and the arrows"
        className="absolute -left-[15px] top-[3px] cursor-grab text-faint opacity-0 focus-visible:opacity-100 group-hover/sort:opacity-100"
      >
        ⋮
      </button>
      {children}
    </div>
  );
}
