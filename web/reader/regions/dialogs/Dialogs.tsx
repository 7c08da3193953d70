import { lazy, Suspense } from 'react';
import { openIn } from '../../model/reader-state';
import { useReader, useSession } from '../../session/reader-context';

const CardDialog = lazy(() => import('../../../review/CardDialog'));
const KeyDialog = lazy(() => import('../../../legend/LegendDialog'));

/** What lies over the reading view. */
export function Dialogs() {
  const { store, legend } = useSession();
  const dialog = useReader((s) => s.dialog);
  const card = useReader(openIn);
  const focusMode = useReader((s) => s.focusMode);
  return (
    <>
      {dialog === 'legend' && (
        <Suspense>
          <KeyDialog
            open
            onOpenChange={(open) => store.dispatch({ type: 'dialog', dialog: open ? 'legend' : undefined })}
            ownerId={legend.className === null ? undefined : legend.ownerId}
          />
        </Suspense>
      )}
      {dialog === 'card' && card && (
        <Suspense>
          <CardDialog annotationId={card} onClose={() => store.dispatch({ type: 'dialog', dialog: undefined })} />
        </Suspense>
      )}
      {focusMode && (
        <button
          className="fixed bottom-3 right-5 z-30 text-[13px] text-faint hover:text-ink"
          onClick={() => store.dispatch({ type: 'focus mode', on: false })}
        >
          Show the rest (Esc)
        </button>
      )}
    </>
  );
}
