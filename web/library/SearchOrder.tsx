import { useState, type ReactNode } from 'react';
import { arrayMove } from '@dnd-kit/sortable';
import { useQueryClient } from '@tanstack/react-query';
import type { SavedSearch } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { renew } from '../data/queries';
import { useWrite } from '../data/use-write';
import { useMessages } from '../ui/Messages';
import { SortableList, useSortableRow } from '../ui/Sortable';

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
  const ordered = order ? order.flatMap((id) => own.find((s) => s.id === id) ?? []) : own;
  const move = async (ids: readonly string[]): Promise<void> => {
    setOrder(ids);
    await put.send({ body: { ids } }).catch((error: unknown) => messages.warn(wordsOf(error)));
    await renew(client, 'outline');
    setOrder(undefined);
  };
  return (
    <SortableList
      ids={ordered.map((s) => s.id)}
      nameOf={(id) => own.find((s) => s.id === id)?.name ?? ''}
      onMove={(id, over) => {
        const ids = ordered.map((s) => s.id);
        void move(arrayMove(ids, ids.indexOf(id), ids.indexOf(over)));
      }}
    >
      {ordered.map((s) => (
        <Sortable key={s.id} id={s.id} name={s.name}>
          {children(s)}
        </Sortable>
      ))}
      {searches.filter((s) => !s.owned).map(children)}
    </SortableList>
  );
}

function Sortable({ id, name, children }: { id: string; name: string; children: ReactNode }) {
  const { ref, style, grip } = useSortableRow(id);
  return (
    <div ref={ref} style={style} className="group/sort relative">
      {grip(name, 'absolute -left-[15px] top-[3px] opacity-0 focus-visible:opacity-100 group-hover/sort:opacity-100')}
      {children}
    </div>
  );
}
