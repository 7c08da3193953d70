import { Suspense, useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { AnnotationHit, AnnotationPage, SourcePage, TopicPage as Topic } from '@avrelle/core/wire';
import { useFound, useSources, useTopic, useTopicNews } from '../data/queries';
import { lazily } from '../ui/lazily';
import { MarkedText } from '../ui/MarkedText';
import { Sign } from '../ui/Sign';
import { State } from '../ui/State';
import { leftOf } from '../ui/SourceRow';
import { TagName } from '../ui/TagNames';
import { count, day, shortName, when } from '../ui/when';
import { TopicWriting } from './TopicWriting';
import { grouped, groupingAsked, GROUP_WORDS, type Grouping } from '../find/grouped';
import { PageHeading } from '../ui/PageHeading';

const TagMap = lazily(() => import('./TagMap'));
const MOST = 200;
const GROUPS = ['source', 'kind', 'person', 'day'] as const satisfies readonly Grouping[];

/** Everything that bears a tag, beside a page of one's own about what it adds up to. */
export default function TopicPage() {
  const [params] = useSearchParams();
  const tag = (params.get('tag') ?? '').toLowerCase();
  const topic = useTopic(tag);
  return (
    <main className="grid min-h-0 grid-cols-[minmax(0,1fr)_minmax(360px,44%)] grid-rows-[auto_minmax(0,1fr)] bg-sheet max-[900px]:block max-[900px]:overflow-y-auto">
      <Tagged tag={tag} writtenAt={topic.data?.writtenAt ?? null}>
        <section aria-label="What I write about it" className="min-h-0 overflow-y-auto px-[30px] py-4 max-[900px]:px-4">
          <State of={topic}>{topic.data && <TopicWriting key={tag} topic={topic.data} />}</State>
          {topic.data && topic.data.related.length > 0 && <Related topic={topic.data} />}
        </section>
      </Tagged>
    </main>
  );
}

interface TaggedProps {
  readonly tag: string;
  /** When one wrote about it last. */
  readonly writtenAt: string | null;
  readonly children: ReactNode;
}

/** How much bears a tag above what one writes of it, and what bears it beside that. */
function Tagged({ tag, writtenAt, children }: TaggedProps) {
  const [params] = useSearchParams();
  const [by, setBy] = useState<Grouping>('source');
  const { marks, sources, fresh } = useTagged(tag, by);
  const back = { to: `/topic?${params}`, words: `#${tag}` };
  const since = fresh.size > 0 ? writtenAt : null;
  return (
    <>
      <div className="col-span-2 flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <Link to="/library" className="reach text-[14px] text-soft hover:text-ink">
          Library
        </Link>
        <PageHeading window={`#${tag}`} className="text-[23px] text-tide">
          <TagName tag={tag} />
        </PageHeading>
        <span className="text-[14px] text-soft">
          {count(totalOf(sources), 'source')} · {count(totalOf(marks), 'mark')}
          {since && (
            <b className="text-brick">
              {' '}
              · {fresh.size} new since you wrote on {day(since)}
            </b>
          )}
        </span>
      </div>
      {children}
      <section
        aria-label="What has this tag"
        className="min-h-0 overflow-y-auto border-l border-rule bg-paper px-6 py-4 max-[900px]:border-l-0 max-[900px]:border-t max-[900px]:px-4"
      >
        {hasAny(sources) && <Sources page={sources} fresh={fresh} back={back} />}
        {hasAny(marks) && <Marks page={marks} {...{ by, fresh, back, onBy: setBy }} />}
        {marks?.total === 0 && sources?.total === 0 && (
          <p className="text-soft">
            Nothing has this tag yet. Write #{tag} in a note, or tag a source with it in the Library.
          </p>
        )}
      </section>
    </>
  );
}

/** What bears a tag, and the ids of what is new among it since one wrote about the tag. */
function useTagged(tag: string, by: Grouping) {
  const q = `tag:${tag}`;
  const marks = useFound({ q, sort: 'newest', limit: MOST, by: groupingAsked(by) }).data;
  const sources = useSources({ q, sort: 'touched', limit: MOST }).data;
  const news = useTopicNews(tag).data;
  return { marks, sources, fresh: new Set<string>([...(news?.sourceIds ?? []), ...(news?.annotationIds ?? [])]) };
}

const totalOf = (page: { readonly total: number } | undefined): number => page?.total ?? 0;
const hasAny = <P extends { readonly total: number }>(page: P | undefined): page is P =>
  page !== undefined && page.total > 0;

interface Back {
  readonly to: string;
  readonly words: string;
}
interface Listing {
  /** Ids of what is new. */
  readonly fresh: ReadonlySet<string>;
  readonly back: Back;
}

function Sources({ page, fresh, back }: Listing & { page: SourcePage }) {
  return (
    <>
      <h2 className="text-[17px]">Sources</h2>
      <ul className="mb-5 mt-1">
        {page.sources.map((s) => (
          <li key={s.id} className="flex items-baseline gap-3 border-t border-rule py-1.5">
            <Link
              to={`/source/${s.id}`}
              state={{ back }}
              dir="auto"
              lang={s.language || undefined}
              className="min-w-0 flex-1 truncate font-read text-[15.5px]"
            >
              {s.title}
            </Link>
            {fresh.has(s.id) && <New />}
            <span className="whitespace-nowrap text-[13px] text-soft">{leftOf(s)}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

interface MarksProps extends Listing {
  readonly page: AnnotationPage;
  readonly by: Grouping;
  onBy(by: Grouping): void;
}

function Marks({ page, by, onBy, fresh, back }: MarksProps) {
  return (
    <>
      <h2 className="flex items-baseline justify-between text-[17px]">
        Marks and notes{' '}
        <label className="font-ui text-[13px] font-normal text-soft">
          <span className="sr-only">Grouped </span>
          <select value={by} onChange={(e) => onBy(e.target.value as Grouping)} className="bg-transparent">
            {GROUPS.map((g) => (
              <option key={g} value={g}>
                {GROUP_WORDS[g]}
              </option>
            ))}
          </select>
        </label>
      </h2>
      {grouped(page.annotations, page.groups, page.by ?? 'none').map(({ key, name, hits }) => (
        <section key={key} aria-label={name} className="mb-4">
          <h3 className="pt-2 text-[15px]">{name}</h3>
          <ul>
            {hits.map((hit) => (
              <Mark key={hit.id} hit={hit} fresh={fresh.has(hit.id)} back={back} />
            ))}
          </ul>
        </section>
      ))}
      {page.total > MOST && (
        <p className="text-[14px]">
          <Link className="act" to={`/find?${new URLSearchParams({ q: back.words, by })}`}>
            All {page.total.toLocaleString('en')} in Find
          </Link>
        </p>
      )}
    </>
  );
}

const New = () => <span className="text-[12px] font-bold text-brick">new</span>;

function Mark({ hit, fresh, back }: { hit: AnnotationHit; fresh: boolean; back: Back }) {
  return (
    <li className="border-t border-rule py-1.5">
      <Link to={`/source/${hit.sourceId}?at=${hit.openAt}`} state={{ back }} className="block hover:text-tide">
        <p
          className="whitespace-pre-line font-read text-[15px] leading-[21px]"
          dir="auto"
          lang={hit.language || undefined}
        >
          <Sign kind={hit.kind} className="me-1.5" />
          <MarkedText pieces={hit.quote} />
        </p>
        {hit.note.length > 0 && (
          <p dir="auto" className="text-[14.5px]">
            <MarkedText pieces={hit.note} />
          </p>
        )}
        <p className="text-[13px] text-soft">
          {shortName(hit.author.name)} · {when(hit.createdAt)} {fresh && <New />}
        </p>
      </Link>
    </li>
  );
}

/** The longer the line, the more sources both stand in. */
function Related({ topic: { tag: here, related, pairs } }: { topic: Topic }) {
  const most = related[0]!.together;
  return (
    <section aria-label="Tags beside it" className="mt-7">
      <h2 className="mb-1 text-[17px]">Tags beside it</h2>
      {pairs.length > 0 && (
        <Suspense>
          <TagMap here={here} related={related} pairs={pairs} />
        </Suspense>
      )}
      <ul className="max-w-[420px]">
        {related.map(({ tag, together }) => (
          <li key={tag} className="grid grid-cols-[minmax(0,1fr)_160px_28px] items-center gap-3 py-0.5 text-[14px]">
            <Link to={`/topic?${new URLSearchParams({ tag })}`} className="truncate text-tide hover:underline">
              #{tag}
            </Link>
            <span aria-hidden="true" className="h-[3px] bg-rule">
              <span className="block h-full bg-tide" style={{ width: `${(100 * together) / most}%` }} />
            </span>
            <span className="text-right text-soft" title={`Together in ${count(together, 'source')}`}>
              {together}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
