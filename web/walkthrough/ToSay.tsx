import { lazy, Suspense, useState } from 'react';
import type { Annotation, WalkthroughStep } from '@avrelle/core/wire';
import { useAnnotations } from '../data/queries';
import { shortName, when } from '../ui/when';

const NoteText = lazy(() => import('../note/NoteText'));

/** Beside a step: what to say, the note itself, and what was answered to it. */
export function ToSay({ step: { words, note } }: { readonly step: WalkthroughStep }) {
  return (
    <div className="grid gap-5">
      <Words>{words}</Words>
      {note && <Thread key={note.id} id={note.id} sourceId={note.source.id} />}
    </div>
  );
}

/** What to say at a step. */
export function Words({ children: words }: { readonly children: string }) {
  return (
    <section>
      <h2 className="mb-1 text-[16px]">To say</h2>
      {words.trim() ? (
        <div className="font-read text-[17px] leading-[26px]">
          <Suspense fallback={<p className="whitespace-pre-line">{words}</p>}>
            <NoteText>{words}</NoteText>
          </Suspense>
        </div>
      ) : (
        <p className="text-[14px] text-soft">Nothing is written for this step.</p>
      )}
    </section>
  );
}

/** A note as it was written, with what was answered to it. */
function useThread(sourceId: string, id: string) {
  const all = useAnnotations(sourceId).data ?? [];
  return {
    root: all.find((one) => one.id === id),
    answers: all.filter(({ rootId, deleted }) => rootId === id && !deleted),
  };
}

/** The note and all answers to it; nothing where one does not see it. */
export function WholeThread({ id, sourceId }: { readonly id: string; readonly sourceId: string }) {
  const { root, answers } = useThread(sourceId, id);
  if (!root) return null;
  return (
    <section aria-label="The note and its answers">
      {[root, ...answers].map((one) => (
        <Said key={one.id} of={one} />
      ))}
    </section>
  );
}

function Thread({ id, sourceId }: { readonly id: string; readonly sourceId: string }) {
  const { root, answers } = useThread(sourceId, id);
  const [shown, setShown] = useState(false);
  if (!root) return null;
  return (
    <section aria-label="The note" className="border-t border-rule pt-3">
      <Said of={root} />
      {answers.length > 0 && (
        <button className="act mt-1 text-[14px]" aria-expanded={shown} onClick={() => setShown((now) => !now)}>
          {shown ? 'Hide answers' : `Show answers (${answers.length})`}
        </button>
      )}
      {shown && answers.map((answer) => <Said key={answer.id} of={answer} />)}
    </section>
  );
}

function Said({ of: { author, createdAt, note } }: { readonly of: Annotation }) {
  return (
    <div className="mt-1.5 text-[14.5px] leading-5">
      <p className="flex items-baseline text-[13px] text-soft">
        <b className="font-semibold text-ink">{shortName(author.name)}</b>
        <span className="ml-auto text-faint">{when(createdAt)}</span>
      </p>
      <Suspense fallback={<p className="whitespace-pre-line">{note}</p>}>
        {note ? <NoteText>{note}</NoteText> : <p className="text-soft">A mark without words.</p>}
      </Suspense>
    </div>
  );
}
