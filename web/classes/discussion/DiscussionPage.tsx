import { Link } from 'react-router';
import { THREAD_FILTERS, THREAD_SORTS, type ClassDetail, type ThreadPage } from '@avrelle/core/wire';
import { useDiscussing, useThreads } from '../../data/discussion-queries';
import { useAllReadings } from '../../data/reading-queries';
import { QueryField } from '../../library/QueryField';
import { StillShown } from '../../library/StillShown';
import { useReadable } from '../../library/use-readable';
import { PageHeading } from '../../ui/PageHeading';
import { State } from '../../ui/State';
import { Tint } from '../../ui/Tint';
import { count } from '../../ui/when';
import { OfClass } from '../ClassPart';
import { FILTER_WORDS, SORT_WORDS, useAskedThreads, type AskedThreads } from './asked';
import { OpenThread } from './OpenThread';
import { ThreadList } from './ThreadList';

/** All threads of a class in one place, and the one that is open beside them. */
export default function DiscussionPage() {
  return <OfClass>{(c) => <Discussion of={c} />}</OfClass>;
}

function Discussion({ of: c }: { readonly of: ClassDetail }) {
  const asked = useAskedThreads();
  const { asked: readable, faulty } = useReadable(asked.q);
  const { sort, only, source, at } = asked;
  const found = useThreads(c.id, { q: readable, sort, ...(only ? { only } : {}), ...(source ? { source } : {}) });
  const first = found.data?.pages[0];
  // A phone shows the list, or the thread that is open.
  const away = awayFor(at);
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr]">
      <header className="border-b border-strong bg-paper px-[30px] pb-2.5 pt-3 max-[900px]:px-4">
        <Link to={`/classes/${c.id}`} className="act text-[14px] !font-normal !text-soft">
          ‹ {c.name}
        </Link>
        <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1.5">
          <PageHeading window={`Discussion, ${c.name}`} className="text-[25px]">
            Discussion
          </PageHeading>
          <Tint tint={c.tint}>{c.name}</Tint>
          <div className={`min-w-[240px] flex-1 max-[900px]:basis-full ${away}`}>
            <QueryField
              value={asked.q}
              onChange={(q) => asked.to({ q: q || undefined })}
              label="What is looked for in the discussion"
              placeholder="words, by:ines, kind:question, #tag …"
            />
          </div>
          {faulty && (
            <span className="text-[13.5px]">
              <StillShown q={asked.q} asked={readable} onMend={(q) => asked.to({ q: q || undefined })} />
            </span>
          )}
        </div>
        <div className={away}>
          <Choices of={c} asked={asked} page={first} />
        </div>
      </header>
      <Threads of={c} found={found} asked={asked} />
    </main>
  );
}

/** What a phone does not show while a thread is open. */
const awayFor = (at: string | undefined): string => (at ? 'max-[900px]:hidden' : '');

interface ThreadsProps {
  readonly of: ClassDetail;
  readonly found: ReturnType<typeof useThreads>;
  readonly asked: AskedThreads;
}

/** The list, and beside it the thread that is open. */
function Threads({ of: c, found, asked }: ThreadsProps) {
  const { at } = asked;
  const pages = found.data?.pages ?? [];
  const threads = pages.flatMap((page) => page.threads);
  const [first] = pages;
  return (
    <div className="grid min-h-0 grid-cols-[minmax(340px,440px)_1fr] max-[900px]:block max-[900px]:overflow-y-auto">
      <section aria-label="Threads" className={`min-h-0 overflow-y-auto border-r border-rule bg-paper ${awayFor(at)}`}>
        <State of={found}>
          {first?.total === 0 && <Nothing asked={asked} />}
          <ThreadList classId={c.id} threads={threads} asked={asked} />
          {found.hasNextPage && (
            <p className="px-5 py-4 text-[14px]">
              <button className="act" disabled={found.isFetching} onClick={() => void found.fetchNextPage()}>
                Show more of {first?.total}
              </button>
            </p>
          )}
        </State>
      </section>
      <section aria-label="Thread" className="min-h-0 overflow-y-auto bg-sheet">
        {at ? (
          <OpenThread key={at} of={c} id={at} row={threads.find((t) => t.id === at)} asked={asked} />
        ) : (
          threads.length > 0 && (
            <p className="p-8 text-soft max-[900px]:hidden">Choose a thread: it opens here, with its passage.</p>
          )
        )}
      </section>
    </div>
  );
}

interface ChoicesProps {
  readonly of: ClassDetail;
  readonly asked: AskedThreads;
  readonly page: ThreadPage | undefined;
}

/** Which threads, of which reading, and in what order. */
function Choices({ of: c, asked: { source, sort, only, to }, page }: ChoicesProps) {
  const { seeAll } = useDiscussing(c.id);
  const unread = page?.unread ?? 0;
  const readings = useAllReadings(c);
  // Reports are told to who teaches alone.
  const filters = THREAD_FILTERS.filter((f) => f !== 'reported' || c.role !== 'student');
  return (
    <div className="mt-1.5 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-[14px] text-soft">
      <span aria-live="polite">
        {page && count(page.total, 'thread')}
        {unread > 0 && `, ${unread} unread`}
      </span>
      <Choice
        label="Show"
        value={only ?? ''}
        options={[['', 'all'], ...filters.map((f) => [f, FILTER_WORDS[f]] as const)]}
        onChoose={(value) => to({ only: value || undefined })}
      />
      <Choice
        label="Reading"
        value={source ?? ''}
        options={[['', 'all readings'], ...readings.map((r) => [r.id, r.title] as const)]}
        onChoose={(value) => to({ source: value || undefined })}
      />
      <Choice
        label="Order by"
        value={sort}
        options={THREAD_SORTS.map((s) => [s, SORT_WORDS[s]] as const)}
        onChoose={(value) => to({ sort: value === 'answered' ? undefined : value })}
      />
      {unread > 0 && (
        <button className="act ml-auto" onClick={() => seeAll(source)}>
          Count all as read
        </button>
      )}
    </div>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [value: string, words: string])[];
  onChoose(value: string): void;
}

const Choice = ({ label, value, options, onChoose }: ChoiceProps) => (
  <label className="flex items-baseline gap-1.5">
    {label}
    <select
      value={value}
      onChange={(e) => onChoose(e.target.value)}
      className="max-w-[220px] truncate border-b border-rule bg-transparent py-0.5 text-ink pointer-coarse:min-h-[44px]"
    >
      {options.map(([id, words]) => (
        <option key={id} value={id}>
          {words}
        </option>
      ))}
    </select>
  </label>
);

function Nothing({ asked: { q, only, source, to } }: { readonly asked: AskedThreads }) {
  if (!q && !only && !source)
    return (
      <p className="max-w-[52ch] p-6 text-soft">
        Nothing was said here yet. Open a reading, select words and write a note for the class: it stands here, and can
        be answered.
      </p>
    );
  return (
    <p className="p-6 text-soft">
      No thread is like that.{' '}
      <button className="act" onClick={() => to({ q: undefined, only: undefined, source: undefined })}>
        Show all
      </button>
    </p>
  );
}
