import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import type { Assignment } from '@avrelle/core/wire';
import { wordsOf } from '../../data/api';
import { call } from '../../data/call';
import { renew } from '../../data/queries';
import { useMessages } from '../../ui/Messages';
import { putOf, valuesOf } from './set-form';

/** Asks for nothing any more; the class goes on reading it. With a way back. */
export function Unset({ set }: { readonly set: Assignment }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const messages = useMessages();
  const params = { id: set.class.id, sourceId: set.source.id };
  const warn = (error: unknown) => messages.warn(wordsOf(error));
  const back = (): void =>
    void call('PUT /api/classes/:id/assignments/:sourceId', { params, body: putOf(valuesOf(set), undefined) })
      .then(() => renew(client, 'classes'))
      .catch(warn);
  const unset = async (): Promise<void> => {
    await call('DELETE /api/classes/:id/assignments/:sourceId', { params });
    await renew(client, 'classes');
    messages.tell(`Nothing is asked for on “${set.source.title}” any more.`, { label: 'Undo', run: back });
    await navigate(`/classes/${set.class.id}`);
  };
  return (
    <button
      type="button"
      className="ml-auto text-[14px] font-semibold text-brick hover:underline"
      onClick={() => void unset().catch(warn)}
    >
      Ask for nothing any more
    </button>
  );
}
