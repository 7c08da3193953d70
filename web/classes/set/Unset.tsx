import { useNavigate } from 'react-router';
import type { Assignment } from '@avrelle/core/wire';
import { useWrite } from '../../data/use-write';
import { useMessages } from '../../ui/Messages';
import { putOf, valuesOf } from './set-form';

/** Asks for nothing any more; the class goes on reading it. With a way back. */
export function Unset({ set }: { readonly set: Assignment }) {
  const put = useWrite('PUT /api/classes/:id/assignments/:sourceId', 'classes');
  const remove = useWrite('DELETE /api/classes/:id/assignments/:sourceId', 'classes');
  const navigate = useNavigate();
  const messages = useMessages();
  const params = { id: set.class.id, sourceId: set.source.id };
  const back = (): void => put.run({ params, body: putOf(valuesOf(set), undefined) });
  const unset = (): void =>
    remove.run({ params }, () => {
      messages.tell(`Nothing is asked for on “${set.source.title}” any more.`, { label: 'Undo', run: back });
      void navigate(`/classes/${set.class.id}`);
    });
  return (
    <button type="button" className="ml-auto text-[14px] font-semibold text-brick hover:underline" onClick={unset}>
      Ask for nothing any more
    </button>
  );
}
