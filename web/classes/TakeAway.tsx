import type { ClassId, SourceRow as Row } from '@avrelle/core/wire';
import { useWrite } from '../data/use-write';
import { useMessages } from '../ui/Messages';

/** Takes a reading out of the class; what was written on it for the class is hidden with it, and comes back with it. */
export function TakeAway({ classId, source }: { classId: ClassId; source: Row }) {
  const messages = useMessages();
  const remove = useWrite('DELETE /api/classes/:id/sources/:sourceId', 'classes');
  const add = useWrite('PUT /api/classes/:id/sources/:sourceId', 'classes');
  const given = { params: { id: classId, sourceId: source.id } };
  const take = (): void =>
    remove.run(given, () =>
      messages.tell(`The class no longer reads “${source.title}”.`, { label: 'Undo', run: () => add.run(given) }),
    );
  return (
    <button
      className="ml-auto block text-right text-[13px] text-faint hover:text-ink"
      onClick={take}
      title={`Take “${source.title}” out of the class`}
    >
      remove
    </button>
  );
}
