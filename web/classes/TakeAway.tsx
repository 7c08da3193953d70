import { useQueryClient } from '@tanstack/react-query';
import type { ClassId, SourceRow as Row } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew } from '../data/queries';
import { useMessages } from '../ui/Messages';

/** Takes a reading out of the class; what was written on it for the class is hidden with it, and comes back with it. */
export function TakeAway({ classId, source }: { classId: ClassId; source: Row }) {
  const messages = useMessages();
  const client = useQueryClient();
  const params = { id: classId, sourceId: source.id };
  const fresh = () => renew(client, 'classes');
  const warn = (error: unknown) => messages.warn(wordsOf(error));
  const putBack = () => void call('PUT /api/classes/:id/sources/:sourceId', { params }).then(fresh).catch(warn);
  const take = () =>
    call('DELETE /api/classes/:id/sources/:sourceId', { params })
      .then(fresh)
      .then(() => messages.tell(`The class no longer reads “${source.title}”.`, { label: 'Undo', run: putBack }))
      .catch(warn);
  return (
    <button
      className="ml-auto block text-right text-[13px] text-faint hover:text-ink"
      onClick={() => void take()}
      title={`Take “${source.title}” out of the class`}
    >
      remove
    </button>
  );
}
