import { useMemo } from 'react';
import { useQuestionsOn } from '../../../data/question-queries';
import { useDocument } from '../../document/document-context';
import { useWide } from '../../../ui/use-width';
import { openIn } from '../../model/reader-state';
import { hasWords, ordered, type Thread } from '../../model/thread';
import { READER_NOTES } from '../../landmarks';
import { useReader, useSession } from '../../session/reader-context';
import { useUnfinishedNotes } from '../../session/use-unfinished-notes';
import { DraftForm } from './DraftForm';
import { FirstSteps, useFirstStep } from './FirstSteps';
import { LevelNotes } from './LevelNotes';
import { MarginHead } from './MarginHead';
import { MarginTop, Outside, type NotesProps } from './MarginTop';
import { ThreadCard } from './ThreadCard';
import { UnfinishedCard } from './UnfinishedCard';
import { QuestionsContext } from './questions-context';
import { usePrepared } from './use-prepared';

/** The right margin: notes level with their passages and tied to them, or in a list of their own; below the page where there is no room beside it. */
export function MarginColumn() {
  const asked = useQuestionsOn(useSession().source.id).data;
  const questions = useMemo(() => new Map(asked?.map((question) => [question.id, question])), [asked]);
  return (
    <QuestionsContext value={questions}>
      <Notes />
    </QuestionsContext>
  );
}

function Notes() {
  const { text, source } = useSession();
  const { page } = useDocument();
  const order = useReader((s) => s.order);
  const wide = useWide();
  const notes = useShownNotes();
  const unfinished = useUnfinishedNotes();
  usePrepared(page, text, source.kind);
  if (!wide) return <NotesBelow notes={notes} unfinished={unfinished} />;
  return order === 'place' ? (
    <LevelNotes notes={notes} unfinished={unfinished} />
  ) : (
    <ListedNotes notes={notes} unfinished={unfinished} />
  );
}

/** A bare highlight shows itself; it has a note here once it is opened, or where all are listed. */
function useShownNotes(): readonly Thread[] {
  const { visible } = useSession();
  const { places } = useDocument();
  const order = useReader((s) => s.order);
  const expanded = useReader((s) => s.expanded);
  const choosing = useReader((s) => s.chosen !== undefined);
  return useMemo(() => {
    const all = choosing || order !== 'place';
    return visible.filter((t) => places.has(t.root.id) && (all || hasWords(t) || expanded.has(t.root.id)));
  }, [visible, places, expanded, choosing, order]);
}

const HEAD = 34;

function ListedNotes({ notes, unfinished }: NotesProps) {
  const order = useReader((s) => s.order);
  const draft = useReader((s) => s.draft);
  const { height } = useReader((s) => s.scroll);
  return (
    <aside
      id={READER_NOTES}
      tabIndex={-1}
      aria-label="Margin"
      className="steps-back relative border-l border-rule bg-paper"
    >
      <MarginTop notes={notes} unfinished={unfinished} />
      <div className="sticky top-[34px] overflow-y-auto px-[10px] pb-6" style={{ maxHeight: height - HEAD }}>
        {draft && (
          <div className="pt-3">
            <DraftForm draft={draft} />
          </div>
        )}
        {unfinished.map((note) => (
          <UnfinishedCard key={note.key} note={note} />
        ))}
        {ordered(notes, order).map((t) => (
          <div key={t.root.id} className="pt-3">
            <ThreadCard thread={t} />
          </div>
        ))}
      </div>
    </aside>
  );
}

/** On a narrow window: what is written or at hand lies over the foot of the page, the others stand below it. */
function NotesBelow({ notes, unfinished }: NotesProps) {
  const order = useReader((s) => s.order);
  const draft = useReader((s) => s.draft);
  const open = useReader(openIn);
  const first = useFirstStep();
  const touched = notes.find((t) => t.root.id === open);
  return (
    <section
      id={READER_NOTES}
      tabIndex={-1}
      aria-label="Notes"
      className="steps-back border-t border-strong bg-paper px-2 pb-6"
    >
      <Outside />
      {(draft ?? touched) && (
        <div className="fixed inset-x-0 bottom-[50px] z-30 max-h-[55vh] overflow-y-auto border-t border-strong bg-paper p-2">
          {draft ? <DraftForm draft={draft} /> : <ThreadCard thread={touched!} />}
        </div>
      )}
      <MarginHead shown={notes.length} unfinished={unfinished} />
      {first.step && <FirstSteps step={first.step} onDone={first.done} />}
      {unfinished.map((note) => (
        <UnfinishedCard key={note.key} note={note} />
      ))}
      {ordered(notes, order).map(
        (t) =>
          t !== touched && (
            <div key={t.root.id} className="pt-3">
              <ThreadCard thread={t} />
            </div>
          ),
      )}
    </section>
  );
}
