import { lazy, Suspense, useMemo, useState } from 'react';
import { contributionOf, leftWords, missing, wordsFor, type Contribution } from '@avrelle/core/class';
import type { Assignment, NamedExpectation, Question } from '@avrelle/core/wire';
import { Changed } from '../../../classes/Changed';
import { isPast, namesOf } from '../../../classes/words';
import { useSetHere } from '../../../data/queries';
import { useQuestionsOn } from '../../../data/question-queries';
import { Tint } from '../../../ui/Tint';
import { dueAt } from '../../../ui/when';
import { useSession } from '../../session/reader-context';
import { Strip } from './Strip';

const NoteText = lazy(() => import('../../../note/NoteText'));

/** What my classes ask of me on this source, and what of it is still missing, counted as I write. */
export function SetHere() {
  const { source } = useSession();
  const set = useSetHere(source.id).data?.filter((a) => a.missing !== null) ?? [];
  return set.map((one) => <SetStrip key={one.class.id} set={one} />);
}

function SetStrip({ set }: { readonly set: Assignment }) {
  const { annotations, me, source } = useSession();
  const asked = useQuestionsOn(source.id).data;
  const [told, setTold] = useState(false);
  const left = useMemo(() => {
    const done = { ...contributionOf(annotations, me.id, set.class.id), questions: answeredIn(set, asked) };
    return leftWords(set.expected, missingOf(set, done), source.readShare);
  }, [set, annotations, asked, me.id, source.readShare]);
  return (
    <div className={left ? '' : 'max-[900px]:hidden'}>
      <Strip>
        {/* What a phone has no room for comes with the button. */}
        <span className={told ? '' : 'max-[900px]:hidden'}>
          <Tint tint={set.class.tint}>{set.class.name}</Tint>
        </span>
        <Left set={set} left={left} />
        <span className={`flex flex-wrap gap-x-5 text-soft ${told ? '' : 'max-[900px]:hidden'}`}>
          {!set.seesOthers && <span>{HIDDEN_WORDS[set.othersSeen]}</span>}
          {set.together.length > 0 && <span>Read together with {namesOf(set.together)}</span>}
          {left && set.comments && <WriteFor set={set} />}
          <Changed set={set} />
        </span>
        <button
          className={`act ${set.instructions ? '' : 'min-[901px]:hidden'}`}
          aria-expanded={told}
          onClick={() => setTold((now) => !now)}
        >
          {set.instructions ? 'Instructions' : 'More'}
        </button>
        {told && set.instructions && <Instructions>{set.instructions}</Instructions>}
      </Strip>
    </div>
  );
}

function Left({ set, left }: { readonly set: Assignment; readonly left: string }) {
  const late = left !== '' && isPast(set.myDueAt);
  return (
    <span className={late ? 'text-brick' : ''}>
      {left ? 'Still missing: ' : 'Done: '}
      <b className="font-semibold">{left || wordsFor(set.expected) || 'read'}</b>
      {set.myDueAt && (
        <span className={late ? '' : 'text-soft'}>
          {' '}
          · {late ? 'was due' : 'due'} {dueAt(set.myDueAt)}
        </span>
      )}
    </span>
  );
}

/** Only what is written for the class counts. */
function WriteFor({ set: { class: c } }: { readonly set: Assignment }) {
  const { audience, chooseAudience } = useSession();
  if (audience.classIds.includes(c.id)) return null;
  const withIt = { ...audience, classIds: [...audience.classIds, c.id] };
  return (
    <button className="act" onClick={() => void chooseAudience(withIt)}>
      Write for {c.name}
    </button>
  );
}

function Instructions({ children }: { readonly children: string }) {
  return (
    <div className="max-h-[30vh] basis-full overflow-y-auto pb-1 font-read text-[15.5px] leading-[22px]">
      <Suspense fallback={<p className="whitespace-pre-line">{children}</p>}>
        <NoteText>{children}</NoteText>
      </Suspense>
    </div>
  );
}

/** While what others wrote is withheld from me: until when. */
const HIDDEN_WORDS: Readonly<Record<Assignment['othersSeen'], string>> = {
  at_once: '',
  after_own: 'You see the others after your own marks',
  after_due: 'You see the others after it is due',
  after_release: 'You see the others when your teacher shows them',
};

/** How many of the questions of the class I answered; until they have come, as many as the server counted. */
const answeredIn = (set: Assignment, questions: readonly Question[] | undefined): number =>
  questions
    ? questions.filter((q) => q.response !== null && q.classes.some(({ id }) => id === set.class.id)).length
    : set.expected.questions - (set.missing?.questions ?? 0);

function missingOf(set: Assignment, done: Contribution): NamedExpectation {
  const names = new Map(set.expected.marks.map(({ kind, name }) => [kind, name]));
  const left = missing(set.expected, done);
  return { ...left, marks: left.marks.map((m) => ({ ...m, name: names.get(m.kind) ?? '' })) };
}
