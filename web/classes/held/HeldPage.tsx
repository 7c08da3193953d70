import { useState } from 'react';
import { Link } from 'react-router';
import type { AnnotationId, ClassDetail, HeldNote } from '@avrelle/core/wire';
import { useHeld, useRelease } from '../../data/held-queries';
import { Sign } from '../../ui/Sign';
import { State } from '../../ui/State';
import { Tick } from '../../ui/Tick';
import { count, dueAt, shortName } from '../../ui/when';
import { OfClass, PartHead } from '../ClassPart';
import { AtATime } from './AtATime';

/** What is held from the students of a class, and its release: all, some or one, at once or at a time. */
export default function HeldPage() {
  return <OfClass>{(c) => <WhenKnown of={c} />}</OfClass>;
}

function WhenKnown({ of: c }: { readonly of: ClassDetail }) {
  const held = useHeld(c.id, true);
  if (held.data) return <Held of={c} held={held.data} />;
  return (
    <main>
      <State of={held} />
    </main>
  );
}

interface Props {
  readonly of: ClassDetail;
  readonly held: readonly HeldNote[];
}

function Held({ of: c, held }: Props) {
  const [ticked, setTicked] = useState<ReadonlySet<AnnotationId>>(new Set());
  // What was released meanwhile is not among them any more.
  const chosen = held.filter((note) => ticked.has(note.id));
  const tick = (some: readonly HeldNote[], on: boolean): void => {
    const ids = new Set(some.map((note) => note.id));
    setTicked(new Set([...[...ticked].filter((id) => !ids.has(id)), ...(on ? ids : [])]));
  };
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr_auto] bg-sheet">
      <PartHead of={c} title="Held">
        Notes for the class that its students do not see yet. Whoever teaches here sees them.
      </PartHead>
      <div className="min-h-0 overflow-y-auto pb-6">
        {held.length === 0 && <Nothing />}
        {readingsOf(held).map((notes) => (
          <Reading key={notes[0]!.source.id} classId={c.id} notes={notes} ticked={ticked} onTick={tick} />
        ))}
      </div>
      {held.length > 0 && <Bar classId={c.id} some={chosen.length > 0 ? chosen : held} isAll={chosen.length === 0} />}
    </main>
  );
}

const Nothing = () => (
  <p className="max-w-[58ch] p-8 text-soft max-[900px]:px-4">
    Nothing is held. To write something that students see later, open a reading, choose the class at the top right, and
    there “Held”.
  </p>
);

/** They come reading by reading. */
const readingsOf = (held: readonly HeldNote[]): readonly (readonly HeldNote[])[] =>
  [...new Set(held.map((note) => note.source.id))].map((id) => held.filter((note) => note.source.id === id));

interface ReadingProps {
  readonly classId: string;
  readonly notes: readonly HeldNote[];
  readonly ticked: ReadonlySet<AnnotationId>;
  onTick(some: readonly HeldNote[], on: boolean): void;
}

function Reading({ classId, notes, ticked, onTick }: ReadingProps) {
  const { id, title, language } = notes[0]!.source;
  const all = notes.every((note) => ticked.has(note.id));
  return (
    <section aria-label={title}>
      <h2 className="flex items-baseline gap-3 border-b border-rule px-[30px] pb-1.5 pt-5 text-[17px] max-[900px]:px-4">
        <Tick
          label={`All of ${title}`}
          checked={all}
          onChange={() => onTick(notes, !all)}
          className="translate-y-[2px]"
        />
        <Link
          to={`/source/${id}`}
          state={{ back: { to: `/classes/${classId}/held`, words: 'Held' } }}
          dir="auto"
          lang={language || undefined}
        >
          {title}
        </Link>
        <span className="whitespace-nowrap font-ui text-[13.5px] font-normal text-soft">
          {count(notes.length, 'note')}
        </span>
      </h2>
      <ul>
        {notes.map((note) => (
          <Row
            key={note.id}
            note={note}
            isTicked={ticked.has(note.id)}
            back={`/classes/${classId}/held`}
            onTick={() => onTick([note], !ticked.has(note.id))}
          />
        ))}
      </ul>
    </section>
  );
}

interface RowProps {
  readonly note: HeldNote;
  readonly isTicked: boolean;
  readonly back: string;
  onTick(): void;
}

function Row({ note: { id, source, kind, words, quote, author, releaseAt }, isTicked, back, onTick }: RowProps) {
  return (
    <li className="grid grid-cols-[16px_20px_1fr_190px] gap-x-3 border-b border-rule px-[30px] py-2.5 max-[900px]:grid-cols-[16px_20px_1fr] max-[900px]:px-4 pointer-coarse:grid-cols-[44px_20px_1fr]">
      <Tick
        label={`Choose: ${(words || quote).slice(0, 60)}`}
        checked={isTicked}
        onChange={onTick}
        className="self-start justify-self-start pt-[5px]"
      />
      <Sign kind={kind} className="pt-px" />
      <Link
        to={`/source/${source.id}?at=${id}`}
        state={{ back: { to: back, words: 'Held' } }}
        className="min-w-0 hover:text-tide"
      >
        {words && (
          <span dir="auto" className="line-clamp-3 text-[15px] leading-[21px]">
            {words}
          </span>
        )}
        <span
          dir="auto"
          lang={source.language || undefined}
          className="line-clamp-2 font-read text-[14.5px] italic text-soft"
        >
          {quote}
        </span>
      </Link>
      <p className="text-right text-[13.5px] text-soft max-[900px]:[grid-column:3] max-[900px]:text-left">
        <b className="block font-semibold text-ink max-[900px]:inline">
          {releaseAt ? `released ${dueAt(releaseAt)}` : 'until released by hand'}
        </b>{' '}
        by {shortName(author.name)}
      </p>
    </li>
  );
}

interface BarProps {
  readonly classId: string;
  readonly some: readonly HeldNote[];
  readonly isAll: boolean;
}

/** What can be done with those that are chosen, or with all. */
function Bar({ classId, some, isAll }: BarProps) {
  const release = useRelease();
  const [asking, setAsking] = useState(false);
  const ids = some.map((note) => note.id);
  return (
    <section
      aria-label="Release"
      className="flex flex-wrap items-baseline gap-x-6 gap-y-1 border-t border-strong bg-paper px-[30px] py-2.5 text-[14px] max-[900px]:px-4"
    >
      <b aria-live="polite">{isAll ? `All ${some.length}` : `${some.length} chosen`}</b>
      <button className="press" onClick={() => void release(classId, ids)}>
        Release now
      </button>
      <button className="act" onClick={() => setAsking(true)}>
        Release at a time…
      </button>
      {some.some((note) => note.releaseAt) && (
        <button className="act" onClick={() => void release(classId, ids, null)}>
          Forget the time
        </button>
      )}
      {asking && <AtATime onChoose={(at) => release(classId, ids, at)} onClose={() => setAsking(false)} />}
    </section>
  );
}
