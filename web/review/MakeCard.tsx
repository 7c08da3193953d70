import { Suspense, useState } from 'react';
import type { AnnotationId } from '@avrelle/core/wire';
import { lazily } from '../ui/lazily';

const CardDialog = lazily(() => import('./CardDialog'));

/** Makes a card of each of some marks, one after the other, to be remembered. */
export function MakeCard({ annotationIds }: { annotationIds: readonly AnnotationId[] }) {
  const [at, setAt] = useState<number>();
  const many = annotationIds.length;
  const annotationId = at === undefined ? undefined : annotationIds[at];
  return (
    <>
      <button type="button" className="whitespace-nowrap text-soft hover:text-ink" onClick={() => setAt(0)}>
        {many > 1 ? 'Make cards' : 'Make a card'}
      </button>
      {at !== undefined && annotationId && (
        <Suspense>
          <CardDialog
            annotationId={annotationId}
            title={many > 1 ? `Make a card: ${at + 1} of ${many}` : 'Make a card'}
            onClose={() => setAt(undefined)}
            onDone={() => setAt(at + 1)}
          />
        </Suspense>
      )}
    </>
  );
}
