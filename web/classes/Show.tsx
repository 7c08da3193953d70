import type { Assignment } from '@avrelle/core/wire';
import { useWrite } from '../data/use-write';
import { useMessages } from '../ui/Messages';

/** Where the students see each other when a teacher shows them: does so, or takes it back. */
export function Show({ set: { class: c, source, othersSeen, shownAt } }: { readonly set: Assignment }) {
  const put = useWrite('POST /api/classes/:id/assignments/:sourceId/shown', 'classes');
  const messages = useMessages();
  if (othersSeen !== 'after_release') return null;
  const change = (shown: boolean): void =>
    put.run({ params: { id: c.id, sourceId: source.id }, body: { shown } }, () =>
      messages.tell(
        shown ? `Everybody in ${c.name} sees everybody’s marks now.` : 'Each student sees only their own again.',
        { label: 'Undo', run: () => change(!shown) },
      ),
    );
  return (
    <button className="act" onClick={() => change(!shownAt)}>
      {shownAt ? 'Hide their marks from each other' : 'Show them each other’s marks'}
    </button>
  );
}
