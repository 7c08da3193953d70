import type { Annotation } from '@avrelle/core/wire';
import { useWrite } from '../../../data/use-write';
import { useStars } from '../../../data/walkthrough-queries';

/** My star on an open note: what I want to find again, or lead a class through. */
export function StarHere({ annotation: { id, sourceId } }: { readonly annotation: Annotation }) {
  const stars = useStars(sourceId).data;
  const put = useWrite('PUT /api/annotations/:id/star', 'threads');
  if (!stars) return null;
  const starred = put.sending?.body.starred ?? stars.includes(id);
  return (
    <button
      aria-pressed={starred}
      title={starred ? 'Take my star off' : 'Give it a star, for me alone'}
      className={starred ? 'font-semibold text-brick' : 'text-soft hover:text-ink'}
      onClick={() => put.run({ params: { id }, body: { starred: !starred } })}
    >
      {starred ? '★' : '☆'} Star
    </button>
  );
}
