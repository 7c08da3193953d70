import { useEffect, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import type { AnnotationId, ClassDetail, StepNote, Walkthrough } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { OfClass, PartHead } from '../classes/ClassPart';
import { call } from '../data/call';
import type { Sent, StoredPage } from '../data/page-saver';
import { keys } from '../data/keys';
import { PAUSE, savingWords, sent, useSaved } from '../data/use-saved';
import { useStarred, useWalkthrough } from '../data/walkthrough-queries';
import { useMessages } from '../ui/Messages';
import { State } from '../ui/State';
import { useLatest } from '../ui/use-latest';
import { SortableList } from '../ui/Sortable';
import { Actions } from './Actions';
import { NoteLine } from './NoteLine';
import { ShowToClass } from './ShowToClass';
import { StepRow } from './StepRow';
import {
  movedStep,
  storedOf,
  textOf,
  withoutStep,
  withStep,
  withStepAt,
  withWords,
  writtenIn,
  type Written,
} from './steps';

/** A walkthrough being made: notes with a star on the left, its steps in their order on the right. */
export default function WalkthroughPage() {
  return <OfClass>{(c) => <Loaded of={c} />}</OfClass>;
}

function Loaded({ of: c }: { readonly of: ClassDetail }) {
  const { walkthroughId = '' } = useParams();
  const found = useWalkthrough(c.id, walkthroughId);
  if (!found.data)
    return (
      <main>
        <State of={found} />
      </main>
    );
  return <Editor key={walkthroughId} of={c} walkthrough={found.data} />;
}

interface Props {
  readonly of: ClassDetail;
  readonly walkthrough: Walkthrough;
}

function Editor({ of: c, walkthrough }: Props) {
  const { written, change, saving, takeTheirs, keepMine } = useWritten(c, walkthrough);
  const starred = useStarred(c.id);
  const notes = new Map<AnnotationId, StepNote>([
    ...(starred.data ?? []).map((note) => [note.id, note] as const),
    ...walkthrough.steps.flatMap(({ note }) => (note ? [[note.id, note] as const] : [])),
  ]);
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr]">
      <PartHead of={c} title={walkthrough.name}>
        <span role="status">{savingWords(saving)}</span>
      </PartHead>
      <div className="grid min-h-0 grid-cols-[minmax(300px,400px)_1fr] max-[900px]:block max-[900px]:overflow-y-auto">
        <section
          aria-label="Notes with a star"
          className="min-h-0 overflow-y-auto border-r border-rule bg-paper pb-6 max-[900px]:border-b max-[900px]:border-r-0"
        >
          <h2 className="px-[30px] pt-4 text-[17px] max-[900px]:px-4">Notes with your star</h2>
          <State of={starred}>
            <Starred
              classId={c.id}
              notes={starred.data ?? []}
              taken={new Set(written.steps.map(({ annotationId }) => annotationId))}
              onAdd={(id) => change((now) => withStep(now, id))}
            />
          </State>
        </section>
        <section aria-label="Steps" className="min-h-0 overflow-y-auto bg-sheet px-8 pb-10 pt-4 max-[900px]:px-4">
          {saving?.type === 'conflict' && (
            <Conflict theirs={writtenIn(saving.theirs.text)} onTake={takeTheirs} onKeep={keepMine} />
          )}
          <Name written={written} onName={(name) => change((now) => ({ ...now, name }))} />
          <Actions of={c} walkthrough={walkthrough} isEmpty={written.steps.length === 0} />
          <ShowToClass of={c} notes={written.steps.flatMap(({ annotationId }) => notes.get(annotationId) ?? [])} />
          <Steps classId={c.id} written={written} notes={notes} onChange={change} />
        </section>
      </div>
    </main>
  );
}

/** What is written, saved a moment after each change and kept on this computer until it is. */
function useWritten({ id: classId }: ClassDetail, walkthrough: Walkthrough) {
  const client = useQueryClient();
  const me = useMe();
  const { id } = walkthrough;
  const stored = storedOf(walkthrough);
  const send = ({ text, version }: StoredPage): Promise<Sent> =>
    sent(
      call('PUT /api/classes/:id/walkthroughs/:walkthroughId', {
        params: { id: classId, walkthroughId: id },
        body: { version, ...writtenIn(text) },
      }).then((answer) => {
        client.setQueryData(keys.walkthrough(classId, id), answer);
        return answer;
      }),
      storedOf,
    );
  const { text, saving, saver, later } = useSaved({ key: `walkthrough/${me.id}/${id}`, stored, send });
  const [written, setWritten] = useState(() => writtenIn(text));
  // What somebody else made of it is shown, where nothing of one's own is on its way.
  const { version } = stored;
  useEffect(() => {
    if (saver.take(stored)) setWritten(writtenIn(stored.text));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a version is never stored with two texts
  }, [saver, version]);
  // Undo comes after other changes, which it leaves as they are.
  const now = useLatest(written);
  const change = (to: (now: Written) => Written): void => {
    const next = to(now.current);
    now.current = next;
    setWritten(next);
    saver.write(textOf(next));
    later(PAUSE);
  };
  const takeTheirs = (): void => {
    if (saving?.type !== 'conflict') return;
    const theirs = writtenIn(saving.theirs.text);
    setWritten(theirs);
    saver.write(textOf(theirs));
    void saver.keepMine();
  };
  return { written, change, saving, takeTheirs, keepMine: () => void saver.keepMine() };
}

interface ConflictProps {
  readonly theirs: Written;
  onTake(): void;
  onKeep(): void;
}

function Conflict({ theirs, onTake, onKeep }: ConflictProps) {
  return (
    <div role="note" className="mb-4 border-l-2 border-brick pl-3 text-[14px]">
      <p className="text-brick">
        Somebody changed it meanwhile: it is “{theirs.name}” with {theirs.steps.length} steps there.
      </p>
      <p className="flex gap-5">
        <button className="act" onClick={onTake}>
          Take theirs
        </button>
        <button className="act" onClick={onKeep}>
          Keep mine in its place
        </button>
      </p>
    </div>
  );
}

interface StarredProps {
  readonly classId: ClassDetail['id'];
  readonly notes: readonly StepNote[];
  readonly taken: ReadonlySet<AnnotationId>;
  onAdd(id: AnnotationId): void;
}

function Starred({ classId, notes, taken, onAdd }: StarredProps) {
  const left = notes.filter(({ id }) => !taken.has(id));
  if (left.length === 0)
    return (
      <p className="max-w-[46ch] px-[30px] py-2 text-[14px] text-soft max-[900px]:px-4">
        {notes.length > 0 ? 'All of them are steps. ' : 'You have given no star yet. '}
        Give one to a note in the{' '}
        <Link className="act" to={`/classes/${classId}/discussion`}>
          discussion
        </Link>{' '}
        or in the text: it stands here then.
      </p>
    );
  return (
    <ul className="mt-1">
      {left.map((note) => (
        <li
          key={note.id}
          className="grid grid-cols-[1fr_auto] items-start gap-x-3 border-b border-rule px-[30px] py-2 max-[900px]:px-4"
        >
          <NoteLine note={note} />
          <button
            className="act text-[14px]"
            aria-label={`Add: ${(note.words || note.quote).slice(0, 60)}`}
            onClick={() => onAdd(note.id)}
          >
            Add
          </button>
        </li>
      ))}
    </ul>
  );
}

function Name({ written: { name }, onName }: { readonly written: Written; onName(name: string): void }) {
  return (
    <label className="mb-2 grid max-w-[640px] gap-0.5 text-[14px] text-soft">
      Name
      <input
        dir="auto"
        value={name}
        maxLength={200}
        aria-invalid={name.trim() === '' ? true : undefined}
        onChange={(event) => onName(event.target.value)}
        className="field font-read text-[19px] font-semibold"
      />
    </label>
  );
}

interface StepsProps {
  readonly classId: ClassDetail['id'];
  readonly written: Written;
  readonly notes: ReadonlyMap<AnnotationId, StepNote>;
  onChange(to: (now: Written) => Written): void;
}

function Steps({ classId, written, notes, onChange }: StepsProps) {
  const messages = useMessages();
  const { steps } = written;
  if (steps.length === 0) return <p className="mt-4 text-soft">It has no steps yet: add notes from the list.</p>;
  const remove = (at: number): void => {
    const step = steps[at]!;
    onChange((now) => withoutStep(now, step.annotationId));
    messages.tell('Step taken out; its note stays.', {
      label: 'Undo',
      run: () => onChange((now) => withStepAt(now, step, at)),
    });
  };
  return (
    <SortableList
      ids={steps.map(({ annotationId }) => annotationId)}
      nameOf={(id) => `Step ${steps.findIndex((step) => step.annotationId === id) + 1}`}
      onMove={(id, over) => onChange((now) => movedStep(now, id, over))}
    >
      <ol aria-label="Steps" className="mt-3 max-w-[860px]">
        {steps.map(({ annotationId, words }, at) => (
          <StepRow
            key={annotationId}
            classId={classId}
            id={annotationId}
            number={at + 1}
            words={words}
            note={notes.get(annotationId)}
            onWords={(said) => onChange((now) => withWords(now, annotationId, said))}
            onRemove={() => remove(at)}
          />
        ))}
      </ol>
    </SortableList>
  );
}
