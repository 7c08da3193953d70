import { plainWords } from '@avrelle/core/markdown';
import { when } from '../../../ui/when';
import { useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import type { UnfinishedNote } from '../../session/use-unfinished-notes';

/** Words that were begun and left: they wait beside their passage. */
export function UnfinishedCard({ note }: { readonly note: UnfinishedNote }) {
  const { mayWrite } = useSession();
  const { marking, noteActions } = useTools();
  const { range, purpose } = note;
  const goOn = (): void => {
    if (mayWrite()) marking.begin(range, purpose.type === 'note' ? purpose.spot : undefined);
  };
  const discard = (): void => {
    const slot = noteActions.slot(purpose);
    slot.drop();
    noteActions.discarded(() => {
      slot.write(note);
      slot.settle();
    });
  };
  return (
    <article
      aria-label="Unfinished note"
      className="border-t border-dashed border-strong px-[13px] pt-[5px] text-[14px]"
    >
      <p className="text-[13px] text-soft">Unfinished note · {when(note.at)}</p>
      <p dir="auto" className="my-0.5 line-clamp-2">
        {plainWords(note.note)}
      </p>
      <p className="flex gap-4 text-[13px]">
        <button className="act" onClick={goOn}>
          Go on writing
        </button>
        <button className="text-soft hover:text-ink" onClick={discard}>
          Discard
        </button>
      </p>
    </article>
  );
}
