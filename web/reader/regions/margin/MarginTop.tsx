import { count } from '../../../ui/when';
import { useDocument } from '../../document/document-context';
import type { Thread } from '../../model/thread';
import { useSession } from '../../session/reader-context';
import type { UnfinishedNote } from '../../session/use-unfinished-notes';
import { MarginHead } from './MarginHead';

export interface NotesProps {
  readonly notes: readonly Thread[];
  readonly unfinished: readonly UnfinishedNote[];
}

/** Above the notes where they stand beside the page. */
export function MarginTop({ notes, unfinished }: NotesProps) {
  return (
    <>
      <MarginHead shown={notes.length} unfinished={unfinished} />
      <div className="sticky top-[34px] z-10 border-b border-rule bg-paper empty:hidden">
        <Outside />
      </div>
    </>
  );
}

/** Marks whose words the view at hand does not show. */
export function Outside() {
  const { store, visible } = useSession();
  const { layout, places } = useDocument();
  const hidden = layout > 0 ? visible.filter((t) => !places.has(t.root.id)).length : 0;
  if (hidden === 0) return null;
  return (
    <p className="px-6 py-1.5 text-[13px] text-soft">
      {count(hidden, 'mark stands', 'marks stand')} outside the main text.{' '}
      <button className="act" onClick={() => store.dispatch({ type: 'view', view: 'kept' })}>
        Show the whole page
      </button>
    </p>
  );
}
