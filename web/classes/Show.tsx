import { useQueryClient } from '@tanstack/react-query';
import type { Assignment } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew } from '../data/queries';
import { useMessages } from '../ui/Messages';

/** Where the students see each other when a teacher shows them: does so, or takes it back. */
export function Show({ set: { class: c, source, othersSeen, shownAt } }: { readonly set: Assignment }) {
  const client = useQueryClient();
  const messages = useMessages();
  if (othersSeen !== 'after_release') return null;
  const change = (shown: boolean): void =>
    void call('POST /api/classes/:id/assignments/:sourceId/shown', {
      params: { id: c.id, sourceId: source.id },
      body: { shown },
    })
      .then(() => renew(client, 'classes'))
      .then(
        () =>
          messages.tell(
            shown ? `Everybody in ${c.name} sees everybody’s marks now.` : 'Each student sees only their own again.',
            { label: 'Undo', run: () => change(!shown) },
          ),
        (error: unknown) => messages.warn(wordsOf(error)),
      );
  return (
    <button className="act" onClick={() => change(!shownAt)}>
      {shownAt ? 'Hide their marks from each other' : 'Show them each other’s marks'}
    </button>
  );
}
