import { memo, Suspense, useEffect, useRef, useState, type Ref } from 'react';
import { isPin, spotName, type Spot } from '@avrelle/core/anchor';
import { plainWords } from '@avrelle/core/markdown';
import type { Annotation, PersonId, Question } from '@avrelle/core/wire';
import { lazily } from '../../../ui/lazily';
import { Quote } from '../../../ui/Quote';
import { Sign } from '../../../ui/Sign';
import { TagNames } from '../../../ui/TagNames';
import { count, shortName, when } from '../../../ui/when';
import { outcomeOf, type Thread } from '../../model/thread';
import { NoteAudience } from '../toolbar/AudienceMenu';
import { Standing, StandingLines } from '../../../note/Standing';
import { ForMembers } from './ForMembers';
import { HeldLine } from './HeldLine';
import { KindMenu } from './KindMenu';
import { LinkedFrom } from './LinkedFrom';
import type { NoteActions } from '../../session/note-actions';
import type { NoteValues } from '../../model/reader-state';
import { NoteForm } from './NoteForm';
import { PlaceLine } from './PlaceLine';
import { Asked, AskTheClass } from './Question';
import { Reply } from './Reply';
import { StarHere } from './StarHere';
import { MakeCard } from '../../../review/MakeCard';
import { PutInNote } from '../../../notes/PutInNote';
import { FollowMenu } from '../../../notifications/FollowMenu';
import { ReplyForm } from '../../../note/ReplyForm';
import { Tick } from '../../../ui/Tick';

/** The words of an open note. */
export const NoteText = lazily(() => import('../../../note/NoteText'));

interface Props {
  readonly thread: Thread;
  readonly me: PersonId;
  readonly open: boolean;
  /** While several are being chosen: whether it is one of them. */
  readonly chosen?: boolean | undefined;
  readonly actions: NoteActions;
  /** Where it asks the class. */
  readonly question?: Question | undefined;
}

/** One annotation in the margin: folded to its first lines, or open with its answers and what can be done with it. */
export const NoteCard = memo(function NoteCard(props: Props) {
  const { thread, me, open, chosen, actions, question } = props;
  const { root } = thread;
  const editing = useEditing(root, actions);
  const standing = open && !root.deleted;
  const head = useRef<HTMLButtonElement>(null);
  const fold = (): void => {
    head.current?.focus();
    actions.toggle(root.id);
  };
  const border = open
    ? 'border border-strong bg-sheet px-3 pb-2.5 [border-top:3px_solid_var(--tide)]'
    : 'border-t border-strong px-[13px]';
  return (
    <article aria-label={`${root.kind.name}, ${root.author.name}`} data-annotation={root.id} className={border}>
      <Head {...props} button={head} />
      <SpotLine root={root} open={open} actions={actions} />
      {standing && <PlaceLine annotation={root} mine={root.author.id === me} actions={actions} />}
      {editing.at ? (
        <Editing root={root} editing={editing} actions={actions} />
      ) : (
        <>
          <Words annotation={root} open={open} quoted={open || chosen !== undefined} onFollow={actions.follow} />
          <Asked question={question} open={open} />
        </>
      )}
      {standing && (
        <>
          <HeldLine annotation={root} />
          <StandingLines of={root} />
          <LinkedFrom id={root.id} onFollow={actions.follow} />
        </>
      )}
      <Replies {...props} />
      {standing && !editing.at && (
        <Foot
          root={root}
          mine={root.author.id === me}
          asks={question !== undefined}
          actions={actions}
          onEdit={editing.begin}
        />
      )}
      {open && !editing.at && <Answer thread={thread} actions={actions} onLeave={fold} />}
    </article>
  );
});

function Replies({ thread: { replies }, me, open, actions }: Props) {
  if (open) return replies.map((r) => <Reply key={r.id} reply={r} mine={r.author.id === me} actions={actions} />);
  return replies.length > 0 && <p className="text-[13px] text-tide">{count(replies.length, 'reply', 'replies')}</p>;
}

/** What a class sees can be answered; Escape folds the note, and begun words are kept. */
function Answer({
  thread: { root, replies },
  actions,
  onLeave,
}: Pick<Props, 'thread' | 'actions'> & { onLeave: () => void }) {
  if (root.classIds.length === 0) return null;
  return (
    <ReplyForm
      onSend={(note) => actions.reply(replies.at(-1) ?? root, note)}
      onCancel={onLeave}
      slot={actions.slot({ type: 'reply', rootId: root.id })}
    />
  );
}

function Head({
  thread: { root },
  me,
  open,
  chosen,
  actions,
  button,
}: Props & { readonly button: Ref<HTMLButtonElement> }) {
  return (
    <header className="flex items-baseline gap-2">
      {chosen !== undefined && root.author.id === me && !root.deleted && (
        <Tick
          label={`Choose: ${root.note.slice(0, 60) || root.anchor?.quote.exact.slice(0, 60)}`}
          checked={chosen}
          onChange={() => actions.choose(root.id)}
          className="translate-y-[2px]"
        />
      )}
      <button
        ref={button}
        aria-expanded={open}
        onClick={() => actions.toggle(root.id)}
        className="flex w-full items-baseline gap-[7px] pt-[5px] text-left text-[13px] text-soft"
      >
        <Sign kind={root.kind} className="w-[15px] text-[15px]" />
        <b className="font-semibold text-ink">{shortName(root.author.name)}</b>{' '}
        {root.deleted ? 'deleted this' : root.kind.name.toLowerCase()}
        <Standing of={root} />
        {outcomeOf(root) === 'unsure' && <span className="text-brick">not sure of its place</span>}
        <span className="ml-auto text-faint">{when(root.createdAt)}</span>
      </button>
    </header>
  );
}

interface FootProps {
  readonly root: Annotation;
  readonly mine: boolean;
  /** It asks the class already. */
  readonly asks: boolean;
  readonly actions: NoteActions;
  onEdit(): void;
}

/** What can be done with an open note. */
function Foot({ root, mine, asks, actions, onEdit }: FootProps) {
  return (
    <footer className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-rule pt-2 text-[13px]">
      <NoteAudience annotation={root} />
      {mine && (
        <>
          <KindMenu
            current={root.kind.code}
            onChoose={(kind) => void actions.change(root, { kind: kind.code }, `made a ${kind.name.toLowerCase()}`)}
          />
          <button className="act" onClick={onEdit}>
            {root.note ? 'Edit' : 'Write'}
          </button>
          {!asks && <AskTheClass annotation={root} />}
          <button className="font-semibold text-brick hover:underline" onClick={() => actions.remove([root])}>
            Delete
          </button>
        </>
      )}
      {!mine && <ForMembers annotation={root} />}
      <StarHere annotation={root} />
      <PutInNote annotationIds={[root.id]} />
      <MakeCard annotationIds={[root.id]} />
      {root.classIds.length > 0 && <FollowMenu annotation={root} />}
      {actions.copyAddress && (
        <button
          className="act ml-auto font-normal text-soft"
          title="Copy an address that opens the original page at this passage"
          onClick={() => actions.copyAddress?.(root)}
        >
          Address
        </button>
      )}
    </footer>
  );
}

interface Edited {
  /** What editing goes on from: what becomes of the annotation meanwhile is not written over. */
  readonly base: Annotation;
  /** The note where it began. */
  readonly first: string;
}

interface NoteEditing {
  readonly at: Edited | undefined;
  begin(): void;
  leave(): void;
  /** The reader has seen what stands there now; saving goes on from it. */
  seen(): void;
  save(values: NoteValues): void;
}

function useEditing(root: Annotation, actions: NoteActions): NoteEditing {
  const [at, setAt] = useState<Edited>();
  /** Words that were refused are in their slot by now; the next attempt is made on what stands. */
  const [again, setAgain] = useState<string>();
  if (again !== undefined) {
    setAgain(undefined);
    if (!root.deleted) setAt({ base: root, first: again });
  }
  return {
    at,
    begin: () => {
      const kept = actions.slot({ type: 'edit', id: root.id, version: root.version }).read()?.purpose;
      const sameAsThen = kept?.type !== 'edit' || kept.version === root.version;
      setAt({ base: root, first: sameAsThen ? root.note : '' });
    },
    leave: () => setAt(undefined),
    seen: () => at && setAt({ base: root, first: at.first }),
    // When the change does not hold, the form comes back with the words, and what stands now beside them.
    save: ({ kind, note, tags }) => {
      const { base, first } = at!;
      setAt(undefined);
      void actions.change(base, { kind: kind.code, note, tags }, 'note changed').then((held) => {
        if (!held) setAgain(first);
      });
    },
  };
}

interface EditingProps {
  readonly root: Annotation;
  readonly editing: NoteEditing;
  readonly actions: NoteActions;
}

function Editing({ root, editing, actions }: EditingProps) {
  const { base, first } = editing.at!;
  return (
    <>
      {root.note !== first && (
        <StandsNow key={root.version} note={root.note} onFollow={actions.follow} onSeen={editing.seen} />
      )}
      <NoteForm
        initial={base}
        sourceId={root.sourceId}
        audience={<NoteAudience annotation={root} />}
        slot={actions.slot({ type: 'edit', id: root.id, version: base.version })}
        onSave={editing.save}
        onLeave={editing.leave}
        onDiscard={(restore) => {
          editing.leave();
          if (restore) actions.discarded(restore);
        }}
      />
    </>
  );
}

/** What stands there for so many milliseconds was seen: saving then goes on from it. */
const SEEN_AFTER = 1_000;

/** Beside a note that is being written: what it is by now, since it was changed in another window. */
function StandsNow({ note, onFollow, onSeen }: { note: string; onFollow: NoteActions['follow']; onSeen: () => void }) {
  const latest = useRef(onSeen);
  useEffect(() => {
    latest.current = onSeen;
  });
  useEffect(() => {
    const timer = setTimeout(() => latest.current(), SEEN_AFTER);
    return () => clearTimeout(timer);
  }, []);
  return (
    <div
      role="note"
      aria-label="The note as it is now"
      className="mt-1.5 border-l-2 border-brick pl-2.5 text-[14px] text-soft"
    >
      <p className="text-[13px] font-semibold text-brick">Changed elsewhere meanwhile. It says now:</p>
      <Suspense>
        <NoteText onFollow={onFollow}>{note || '(no words)'}</NoteText>
      </Suspense>
      <p className="text-[13px]">
        Below are your words. Take over what you want to keep; saving puts yours in its place.
      </p>
    </div>
  );
}

/** What is drawn over words quotes them; other things have nothing to quote. */
const isOfWords = (spot: Spot | undefined): boolean =>
  spot === undefined || (spot.type === 'drawn' && spot.tied.to !== 'picture');

interface SpotProps {
  readonly root: Annotation;
  readonly open: boolean;
  readonly actions: NoteActions;
}

/** What is meant where it is no words. */
function SpotLine({ root, open, actions }: SpotProps) {
  const { playFrom } = actions;
  const spot = root.deleted ? undefined : root.anchor?.spot;
  if (!spot) return null;
  if (spot.type === 'time' && playFrom)
    return (
      <button className="act text-[13px]" onClick={() => playFrom(spot.from)}>
        Play {spotName(spot)}
      </button>
    );
  return (
    <p className="text-[13px] text-faint">
      {spotName(spot)}
      {open && spot.type === 'area' && !isPin(spot) && (
        <>
          {' '}
          ·{' '}
          <button
            className="act"
            title="Download this area, with its marks, as a PNG picture"
            onClick={() => actions.downloadArea(spot)}
          >
            Download PNG
          </button>
        </>
      )}
    </p>
  );
}

function Words({
  annotation,
  open,
  quoted,
  onFollow,
}: {
  annotation: Annotation;
  open: boolean;
  quoted: boolean;
  onFollow: (id: string) => boolean;
}) {
  const plain = annotation.note.trim();
  return (
    <div className="text-[14.5px] leading-5">
      {plain &&
        (open ? (
          <Suspense
            fallback={
              <p dir="auto" className="my-0.5 whitespace-pre-line">
                {plain}
              </p>
            }
          >
            <NoteText onFollow={onFollow}>{plain}</NoteText>
          </Suspense>
        ) : (
          <p dir="auto" className="my-0.5 line-clamp-3 whitespace-pre-line">
            {plainWords(plain)}
          </p>
        ))}
      {!plain && quoted && isOfWords(annotation.anchor?.spot) && (
        <p className="my-0.5 line-clamp-4">
          <Quote of={annotation} className="italic text-soft" />
        </p>
      )}
      {annotation.tags.length > 0 && (
        <p className="text-[13px] text-tide">
          <TagNames tags={annotation.tags} />
        </p>
      )}
    </div>
  );
}
