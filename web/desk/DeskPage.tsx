import { lazy, Suspense, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Assignment, Desk, SourceRow as Row } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { useDesk, useMyAssignments } from '../data/queries';
import { Due, isShown } from './Due';
import { NewForYou } from './NewForYou';
import { MarkedText } from '../ui/MarkedText';
import { Sign } from '../ui/Sign';
import { Strand } from '../ui/Strand';
import { State } from '../ui/State';
import { Tint } from '../ui/Tint';
import { count, minutes } from '../ui/when';
import { timeFor } from '../review/comes-back';
import { PageHeading } from '../ui/PageHeading';

const FirstPage = lazy(() => import('./FirstPage'));
const BACK = { back: { to: '/desk', words: 'Desk' } };

/** Today: answers to me, what I was reading, what waits to be read. */
export default function DeskPage() {
  const me = useMe();
  const desk = useDesk();
  const set = useMyAssignments();
  // Who keeps a first page here sees what becomes of it, and goes on from there.
  const [isNew, setNew] = useState<boolean>();
  if (isNew === undefined && desk.data) setNew(isUntouched(desk.data));
  const today = new Date().toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' });
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <div className="flex items-baseline gap-4 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <PageHeading>Desk</PageHeading>
        <p className="font-read italic text-soft">{today}</p>
      </div>
      {/* What is due stands first: it comes with the rest, and moves nothing under a pointer. */}
      <State of={set.isPending && !desk.error ? set : desk}>
        {desk.data && isNew && (
          <Suspense>
            <FirstPage />
          </Suspense>
        )}
        {desk.data && !isNew && <Work desk={desk.data} due={set.data ?? []} name={me.name} />}
      </State>
    </main>
  );
}

/** Nothing was ever kept, and nobody wants anything. */
const isUntouched = ({ begun, notices, asking, questions }: Desk): boolean =>
  !begun && notices.length + asking.length + questions.length === 0;

interface WorkProps {
  readonly desk: Desk;
  readonly due: readonly Assignment[];
  readonly name: string;
}

/** What is due, what is begun and what waits; beside it, answers. */
function Work({ desk, due, name }: WorkProps) {
  return (
    <div className="grid min-h-0 grid-cols-[1fr_388px] max-[900px]:block max-[900px]:overflow-y-auto">
      <div className="min-h-0 overflow-y-auto px-[30px] py-4 max-[900px]:px-4">
        <Due of={due} />
        <Cards due={desk.cards} />
        <Questions of={desk.questions.filter((asked) => !isAmong(due, asked))} />
        <Shelf
          title="Go on reading"
          sources={desk.reading}
          empty="Nothing is begun. Open something from below, or keep a page in the Library."
        />
        {desk.spare && <Shelf title="For a spare moment" sources={[desk.spare]} empty="" />}
        <Shelf
          title="Waiting to be read"
          sources={desk.fresh}
          empty="Nothing to read."
          more={
            desk.waiting > 0 ? (
              <Link to="/work-through" className="act font-ui text-[13px]">
                Work through {desk.waiting}
              </Link>
            ) : undefined
          }
        />
        {desk.past && <Past past={desk.past} />}
      </div>
      <NewForYou desk={desk} name={name} />
    </div>
  );
}

/** Cards to be practised. */
function Cards({ due }: { readonly due: number }) {
  if (due === 0) return null;
  return (
    <section className="mb-7" aria-label="Cards">
      <h2 className="mb-1 text-[17px]">Cards to review</h2>
      <p className="border-t border-rule py-2.5">
        <Link to="/review" className="act">
          {count(due, 'card')}
        </Link>
        <span className="text-[14px] text-soft"> · {timeFor(due)}</span>
      </p>
    </section>
  );
}

interface TitleProps {
  readonly of: { readonly title: string; readonly language: string };
  readonly to: string;
}
/** A source by its name, and the way to it and back. */
const Title = ({ of: { title, language }, to }: TitleProps) => (
  <Link to={to} state={BACK} dir="auto" lang={language || undefined} className="hover:text-tide">
    {title}
  </Link>
);

/** What is due asks for these answers already. */
const isAmong = (due: readonly Assignment[], { class: c, source }: Desk['questions'][number]): boolean =>
  due.some(
    (set) => set.class.id === c.id && set.source.id === source.id && (set.missing?.questions ?? 0) > 0 && isShown(set),
  );

/** What my classes ask me, reading by reading. */
function Questions({ of }: { readonly of: Desk['questions'] }) {
  if (of.length === 0) return null;
  return (
    <section className="mb-7" aria-label="Questions">
      <h2 className="mb-1 text-[17px]">Questions to answer</h2>
      <ul>
        {of.map(({ class: c, source, firstId, count: left }) => (
          <li
            key={`${c.id} ${source.id}`}
            className="grid grid-cols-[1fr_auto] items-baseline gap-x-4 border-t border-rule py-2.5"
          >
            <div className="min-w-0">
              <h3 className="truncate text-[16px]">
                <Title of={source} to={`/source/${source.id}?at=${firstId}`} />
              </h3>
              <p className="mt-0.5 text-[13px] text-soft">
                <Tint tint={c.tint}>{c.name}</Tint>
              </p>
            </div>
            <span className="text-[13.5px] text-soft">{count(left, 'question')}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Past({ past: { ago, annotations } }: { past: NonNullable<Desk['past']> }) {
  return (
    <section className="mb-7">
      <h2 className="mb-1 text-[17px]">On this day {ago} ago</h2>
      <ul>
        {annotations.map((a) => (
          <li key={a.id} className="border-t border-rule py-2.5">
            <Link to={`/source/${a.sourceId}?at=${a.openAt}`} state={BACK} className="block hover:text-tide">
              <p className="whitespace-pre-line font-read text-[16px]" dir="auto" lang={a.language || undefined}>
                <Sign kind={a.kind} className="me-1.5" />
                <MarkedText pieces={a.quote} />
              </p>
              {a.note.length > 0 && (
                <p dir="auto" className="text-[14.5px]">
                  <MarkedText pieces={a.note} />
                </p>
              )}
              <p className="text-[13px] text-soft">{a.title}</p>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Shelf({
  title,
  sources,
  empty,
  more,
}: {
  title: string;
  sources: readonly Row[];
  empty: string;
  more?: ReactNode;
}) {
  return (
    <section className="mb-7">
      <h2 className="mb-1 flex items-baseline justify-between text-[17px]">
        {title}
        {more}
      </h2>
      {sources.length === 0 && <p className="border-t border-rule py-2.5 text-soft">{empty}</p>}
      <ul>
        {sources.map((s) => (
          <li
            key={s.id}
            className="grid grid-cols-[1fr_190px_80px] items-center gap-4 border-t border-rule py-2.5 max-[900px]:grid-cols-[1fr_auto]"
          >
            <div className="min-w-0">
              <h3 className="truncate text-[16px]">
                <Title of={s} to={`/source/${s.id}`} />
              </h3>
              <p className="truncate text-[13px] text-soft">{[s.author, s.site].filter(Boolean).join(' · ')}</p>
            </div>
            <span className="max-[900px]:hidden">
              <Strand strand={s.strand} />
            </span>
            <span className="text-right text-[13.5px] text-soft">
              {minutes(s.minutes * (1 - s.readShare))}
              {s.readShare > 0 ? ' left' : ''}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
