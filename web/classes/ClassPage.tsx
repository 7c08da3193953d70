import { Link, useParams } from 'react-router';
import { ClassMenu, useArchive } from './ClassMenu';
import { Members } from './Members';
import { READINGS_AT_ONCE, type ClassDetail } from '@avrelle/core/wire';
import { useHeld } from '../data/held-queries';
import { useReadings } from '../data/reading-queries';
import { useClass, useClassAssignments } from '../data/queries';
import { Readings } from './Readings';
import { ThisWeek } from './ThisWeek';
import { State } from '../ui/State';
import { Tint } from '../ui/Tint';
import { useCopy } from '../ui/use-copy';
import { count, day } from '../ui/when';
import { PageHeading } from '../ui/PageHeading';

/** One class: what it reads, and who is in it. */
export default function ClassPage() {
  const { id = '' } = useParams();
  const found = useClass(id);
  const set = useClassAssignments(id);
  const c = found.data;
  if (!c)
    return (
      <main>
        <State of={found} />
      </main>
    );
  return (
    <main className="grid min-h-0 grid-cols-[1fr_388px] grid-rows-[auto_1fr] max-[900px]:block max-[900px]:overflow-y-auto">
      <Head of={c} />
      <Read of={c} set={set} />
      <aside
        aria-label="People and how far they are"
        className="min-h-0 overflow-y-auto border-l border-rule px-6 py-4 max-[900px]:border-l-0"
      >
        <ThisWeek week={set.data?.week ?? []} teaches={c.role !== 'student'} />
        <h2 className="mb-2 flex items-baseline justify-between text-[17px]">
          People
          {c.role !== 'student' && c.archivedAt === null && (
            <Link className="act font-ui text-[13px]" to={`/classes/${c.id}/groups`}>
              {c.groups.length > 0 ? `${c.groups.length} groups` : 'Make groups'}
            </Link>
          )}
        </h2>
        {c.role === 'student' && c.groups[0] && (
          <p className="mb-2 text-[14px] text-soft">
            You are in <b className="font-semibold text-ink">{c.groups[0].name}</b>.
          </p>
        )}
        <Members of={c} />
      </aside>
    </main>
  );
}

interface ReadProps {
  readonly of: ClassDetail;
  readonly set: ReturnType<typeof useClassAssignments>;
}

/** What it reads, more of it as it is asked for. */
function Read({ of: c, set }: ReadProps) {
  const { readings, isMore, isFetching, fetchMore } = useReadings(c);
  const teaches = c.role !== 'student';
  return (
    <section aria-label="Readings" className="min-h-0 overflow-y-auto bg-sheet">
      {c.archivedAt !== null && <Archived of={c} />}
      {c.readings.length === 0 && c.archivedAt === null && <NothingRead teaches={teaches} />}
      {teaches && <HeldHere id={c.id} />}
      <State of={set}>
        <Readings of={c} set={set.data?.assignments ?? []} readings={readings} />
      </State>
      {isMore && (
        <p className="px-[30px] py-4">
          <button className="act" disabled={isFetching} onClick={() => void fetchMore()}>
            Show {Math.min(READINGS_AT_ONCE, c.sources - readings.length)} more
          </button>
        </p>
      )}
    </section>
  );
}

function NothingRead({ teaches }: { readonly teaches: boolean }) {
  return (
    <p className="max-w-[56ch] p-8 text-soft">
      Nothing is read here yet. {teaches && 'Set a reading: say what you expect, and until when. '}
      Whatever is in your Library can be shared, too: open it and choose the class at the top right, where it says for
      whom you write.
    </p>
  );
}

/** That it is only looked at, and for its teachers, a way back. */
function Archived({ of: c }: { readonly of: ClassDetail }) {
  const archive = useArchive(c);
  return (
    <p className="border-b border-rule border-l-[3px] border-l-brick bg-paper px-[27px] py-2 text-[14px] max-[900px]:px-4">
      Archived since {day(c.archivedAt!)}: it can be looked at, and nothing new is written for it.
      {c.role === 'teacher' && (
        <button className="act ml-4" onClick={() => archive(false)}>
          Open it again
        </button>
      )}
    </p>
  );
}

/** For who teaches: that something is held, and where it is released. */
function HeldHere({ id }: { readonly id: string }) {
  const held = useHeld(id, true).data ?? [];
  if (held.length === 0) return null;
  const readings = new Set(held.map((note) => note.source.id)).size;
  return (
    <p className="border-b border-rule border-l-[3px] border-l-brick bg-paper px-[27px] py-2 text-[14px] max-[900px]:px-4">
      {count(held.length, 'note is', 'notes are')} held on {count(readings, 'reading')}: students do not see{' '}
      {held.length === 1 ? 'it' : 'them'} yet.{' '}
      <Link className="act ml-3" to={`/classes/${id}/held`}>
        Look and release
      </Link>
    </p>
  );
}

/** Its name, how many it is, and what can be done with it. */
function Head({ of: c }: { readonly of: ClassDetail }) {
  const teaches = c.role !== 'student';
  return (
    <header className="col-span-2 flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b border-strong px-[30px] pb-3 pt-4 max-[900px]:px-4">
      <PageHeading window={c.name} className="text-[25px]">
        <Tint tint={c.tint}>{c.name}</Tint>
      </PageHeading>
      <p className="text-[14px] text-soft">
        {count(c.people, 'person', 'people')} · {count(c.sources, 'reading')} · {count(c.annotations, 'shared mark')}
      </p>
      <div className="ml-auto flex flex-wrap items-baseline gap-x-6 gap-y-2 text-[14px] text-soft">
        {teaches && <JoinHere of={c} />}
        <Link className="act" to={`/classes/${c.id}/discussion`}>
          Discussion
        </Link>
        <Link className="act" to={`/classes/${c.id}/questions`}>
          Questions
        </Link>
        {teaches && (
          <Link className="act" to={`/classes/${c.id}/cards`}>
            Cards
          </Link>
        )}
        {teaches && (
          <Link className="act" to={`/classes/${c.id}/walkthroughs`}>
            Walkthroughs
          </Link>
        )}
        {teaches && c.archivedAt === null && (
          <Link className="act" to={`/classes/${c.id}/live`}>
            Show live
          </Link>
        )}
        <ClassMenu of={c} />
        {teaches && c.archivedAt === null && (
          <Link className="act" to={`/classes/${c.id}/set`}>
            Set a reading
          </Link>
        )}
      </div>
    </header>
  );
}

/** The code, and who waits to be let in: more of it on a page of its own. */
function JoinHere({ of: { id, code, asking, archivedAt } }: { readonly of: ClassDetail }) {
  const copy = useCopy();
  return (
    <>
      {code && archivedAt === null && (
        <p>
          Code to join:{' '}
          <button
            className="act tracking-[.14em]"
            title="Copy"
            onClick={() => copy(code, 'The code is on the clipboard.')}
          >
            {code}
          </button>
        </p>
      )}
      <Link className="act" to={`/classes/${id}/joining`}>
        Joining
        {asking > 0 && <span className="font-semibold text-brick"> · {asking} waiting</span>}
      </Link>
    </>
  );
}
