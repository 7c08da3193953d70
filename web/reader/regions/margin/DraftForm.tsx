import type { Draft } from '../../model/reader-state';
import { useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import { AudienceMenu } from '../toolbar/AudienceMenu';
import { NoteForm } from './NoteForm';

/** The note that is being written, beside its passage. */
export function DraftForm({ draft }: { readonly draft: Draft }) {
  const { source, store, audience, chooseAudience } = useSession();
  const { marking, noteActions } = useTools();
  const leave = (): void => store.dispatch({ type: 'draft', draft: undefined });
  const { range, spot, exact, kind, note } = draft;
  return (
    <div className="border border-strong bg-sheet px-3 py-2 [border-top:3px_solid_var(--tide)]">
      <NoteForm
        key={`${range.start}-${range.end}`}
        sourceId={source.id}
        initial={{ kind, note, tags: [] }}
        audience={<AudienceMenu small label="For" audience={audience} onChoose={(one) => void chooseAudience(one)} />}
        slot={noteActions.slot({ type: 'note', range, spot, exact })}
        onSave={marking.save}
        onLeave={leave}
        onDiscard={(restore) => {
          leave();
          if (restore) noteActions.discarded(restore);
        }}
      />
    </div>
  );
}
