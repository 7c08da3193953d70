import { lazy, Suspense, useCallback, useState, type ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';
import { useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { asksFor, asksWords, parseQuery, renameTagIn, toggled } from '@avrelle/core/query';
import { SOURCE_SORTS, type FoundSource, type SavedSearch, type SourceSort } from '@avrelle/core/wire';
import { here, sourcesQuery, useClasses, useOutline } from '../data/queries';
import { Menu } from '../ui/Menu';
import { Sample } from '../gather/Sample';
import { State } from '../ui/State';
import { useStored } from '../ui/use-stored';
import { count } from '../ui/when';
import { KeepBar } from './KeepBar';
import { ListView } from './ListView';
import { QueryField } from './QueryField';
import { RowActions } from './RowActions';
import { Sidebar } from './Sidebar';
import { useChanging } from './use-changing';
import { useChosen } from './use-chosen';
import { StillShown } from './StillShown';
import { useReadable } from './use-readable';
import { useSourceList } from './use-source-list';
import { hrefOf } from '../data/call';
import { PageHeading } from '../ui/PageHeading';

// What one begins with is there at once; the rest comes when it is asked for.
const BulkBar = lazy(() => import('./BulkBar'));
const BoardView = lazy(() => import('./BoardView'));
const CalendarView = lazy(() => import('./CalendarView'));
const TableView = lazy(() => import('./TableView'));
const CollectionDialog = lazy(() => import('./CollectionDialog'));
const EditSource = lazy(() => import('./EditSource'));
const KeepSearch = lazy(() => import('./KeepSearch'));
const PlainForm = lazy(() => import('./PlainForm'));
const TagDialog = lazy(() => import('./TagDialog'));

const VIEWS = ['detailed', 'compact', 'table', 'board', 'calendar'] as const;
type View = (typeof VIEWS)[number];
const VIEW_WORDS: Readonly<Record<View, string>> = {
  detailed: 'Detailed',
  compact: 'Compact',
  table: 'Table',
  board: 'Board',
  calendar: 'Calendar',
};
const SORT_WORDS: Readonly<Record<SourceSort, string>> = {
  best: 'best first',
  touched: 'last touched',
  saved: 'newest first',
  title: 'by title',
  author: 'by author',
  minutes: 'shortest first',
  longest: 'longest first',
  progress: 'most read first',
  marks: 'most marks first',
};
/** So many can be chosen at once. */
const MOST_CHOSEN = 500;
const AT_ONCE = 200;

/** What is being asked in a dialog. */
type Asking =
  | { readonly edit: FoundSource }
  | { readonly search: SavedSearch | undefined }
  | { readonly tag: string }
  | { readonly collection: true };

/** Every source one may read: searched, seen in the way that suits, and changed one by one or many at once. */
export default function LibraryPage() {
  const [params, setParams] = useSearchParams();
  const [usual, setUsual] = useStored<View>('library.view', 'detailed');
  const q = params.get('q') ?? '';
  const view = VIEWS.find((v) => v === params.get('view')) ?? usual;
  const sort = SOURCE_SORTS.find((s) => s === params.get('sort'));
  const parsed = parseQuery(q);
  const hasWords = parsed.ok && asksWords(parsed.query).length > 0;
  const tag =
    parsed.ok && parsed.query?.type === 'name' && parsed.query.field === 'tag' ? parsed.query.value : undefined;
  const { asked, faulty } = useReadable(q);
  const list = useSourceList(asked, sort);
  const outline = useOutline().data;
  const classes = useClasses().data ?? [];
  const chosen = useChosen();
  const changing = useChanging();
  const [asking, setAsking] = useState<Asking>();
  const [beside, setBeside] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  const client = useQueryClient();
  const navigate = useNavigate();
  const to = useCallback(
    (change: Record<string, string | undefined>): void =>
      setParams(
        (before) => {
          const after = new URLSearchParams(before);
          for (const [key, value] of Object.entries(change)) {
            if (value) after.set(key, value);
            else after.delete(key);
          }
          return after;
        },
        { replace: true },
      ),
    [setParams],
  );
  const onQuery = useCallback(
    (query: string): void => {
      to({ q: query || undefined });
      scroller?.scrollTo({ top: 0 });
    },
    [to, scroller],
  );
  const collections = outline?.collections.filter((c) => c.owned || c.may === 'add') ?? [];
  const actions = (source: FoundSource) => (
    <RowActions
      source={source}
      changing={changing}
      collections={collections}
      onEdit={() => setAsking({ edit: source })}
    />
  );
  const chooseAll = async (): Promise<void> => {
    const pages = await Promise.all(
      Array.from({ length: Math.ceil(Math.min(list.total, MOST_CHOSEN) / AT_ONCE) }, (_, n) =>
        client.fetchQuery(sourcesQuery({ q: asked, sort, offset: n * AT_ONCE, limit: AT_ONCE })),
      ),
    );
    chosen.set(pages.flatMap((p) => p.sources).slice(0, MOST_CHOSEN));
  };
  const shared = { scroller, list, chosen, actions };
  const views: Readonly<Record<typeof view, () => ReactNode>> = {
    table: () => <TableView {...shared} changing={changing} sort={sort} onSort={(s) => to({ sort: s })} />,
    board: () => <BoardView q={asked} sort={sort} chosen={chosen} changing={changing} actions={actions} />,
    calendar: () => <CalendarView q={asked} onDay={(day) => to({ q: day, view: 'detailed' })} />,
    compact: () => <ListView key={view} {...shared} compact />,
    detailed: () => <ListView key={view} {...shared} compact={false} />,
  };
  return (
    <div className="grid min-h-0 grid-cols-[236px_1fr] max-[900px]:grid-cols-1">
      <Sidebar
        outline={outline}
        q={asked}
        onQuery={onQuery}
        onEditSearch={(search) => setAsking({ search })}
        onEditTag={(tag) => setAsking({ tag })}
        onNewCollection={() => setAsking({ collection: true })}
        open={beside}
        onClose={() => setBeside(false)}
      />
      <main
        ref={setScroller}
        data-choosing={choosing || undefined}
        className="relative flex min-h-0 flex-col overflow-y-auto bg-sheet"
      >
        <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
          <PageHeading>Library</PageHeading>
          <QueryField
            value={q}
            onChange={onQuery}
            label="Search the Library"
            placeholder="words, tag:essay, is:reading, minutes<10 …"
          />
          <Suspense>
            <PlainForm q={asked} onQuery={onQuery} />
          </Suspense>
          <div
            role="group"
            aria-label="How the sources are shown"
            className="ml-auto flex gap-3.5 text-[14px] max-[900px]:ml-0"
          >
            {VIEWS.map((v) => (
              <button
                key={v}
                aria-pressed={v === view}
                onClick={() => {
                  setUsual(v);
                  to({ view: v });
                }}
                className={v === view ? 'border-b-2 border-tide font-semibold' : 'text-soft hover:text-ink'}
              >
                {VIEW_WORDS[v]}
              </button>
            ))}
          </div>
        </div>
        <KeepBar />
        <div className="flex flex-wrap items-baseline gap-x-5 border-b border-rule px-[30px] py-1.5 text-[13.5px] text-soft max-[900px]:px-4">
          <button className="act hidden max-[900px]:block" onClick={() => setBeside(true)}>
            Filter
          </button>
          {(view === 'detailed' || view === 'compact') && (
            <button
              aria-pressed={choosing}
              className="act hidden max-[900px]:block"
              onClick={() => {
                setChoosing(!choosing);
                chosen.none();
              }}
            >
              {choosing ? 'Done choosing' : 'Choose'}
            </button>
          )}
          <span aria-live="polite">
            {!list.isPending &&
              !list.error &&
              (q ? `${list.total} of ${outline?.all ?? '…'}` : count(list.total, 'source'))}
          </span>
          {view !== 'calendar' && (
            <Menu words={SORT_WORDS[sort ?? (hasWords ? 'best' : 'touched')]}>
              {SOURCE_SORTS.filter((s) => hasWords || s !== 'best').map((s) => (
                <DropdownMenu.Item key={s} className="item" onSelect={() => to({ sort: s })}>
                  {SORT_WORDS[s]}
                </DropdownMenu.Item>
              ))}
            </Menu>
          )}
          {list.total > 0 && <ExportMenu q={asked} />}
          {q && (
            <>
              <button className="act" onClick={() => onQuery('')}>
                Show all
              </button>
              <button className="act" onClick={() => setAsking({ search: undefined })}>
                Save this search
              </button>
            </>
          )}
          {faulty && <StillShown q={q} asked={asked} onMend={onQuery} />}
          {tag && (
            <Link className="act" to={`/topic?${new URLSearchParams({ tag })}`}>
              The page about #{tag}
            </Link>
          )}
          {outline && outline.states.to_read > 0 && (
            <button className="act ml-auto" onClick={() => void navigate('/work-through')}>
              Work through what is to read: {outline.states.to_read}
            </button>
          )}
        </div>
        <div className="min-h-0 flex-1">
          <Suspense>
            <State of={list}>
              {list.total === 0 && view !== 'calendar' ? (
                <Empty searched={q !== ''} meant={list.meant} onMeant={onQuery} />
              ) : (
                views[view]()
              )}
            </State>
          </Suspense>
        </div>
        {chosen.rows.length > 0 && (
          <Suspense>
            <BulkBar
              chosen={chosen}
              changing={changing}
              collections={collections}
              classes={classes}
              total={list.total}
              onAll={() => void chooseAll()}
            />
          </Suspense>
        )}
      </main>
      <Dialogs asking={asking} q={q} asked={asked} onQuery={onQuery} onClose={() => setAsking(undefined)} />
    </div>
  );
}

/** What is found, for other programs. */
function ExportMenu({ q }: { readonly q: string }) {
  return (
    <Menu words="Export">
      {(
        [
          ['GET /api/sources.csv', 'As a table (CSV)'],
          ['GET /api/sources/bookmarks.html', 'As bookmarks'],
        ] as const
      ).map(([name, words]) => (
        <DropdownMenu.Item key={name} className="item" asChild>
          <a href={hrefOf(name, { query: { q, ...here() } })} download>
            {words}
          </a>
        </DropdownMenu.Item>
      ))}
    </Menu>
  );
}

interface DialogsProps {
  readonly asking: Asking | undefined;
  readonly q: string;
  /** The last search that could be read. */
  readonly asked: string;
  readonly onQuery: (q: string) => void;
  readonly onClose: () => void;
}

function Dialogs({ asking, q, asked, onQuery, onClose }: DialogsProps) {
  const navigate = useNavigate();
  return (
    <Suspense>
      {asking && 'edit' in asking && <EditSource source={asking.edit} onClose={onClose} />}
      {asking && 'search' in asking && <KeepSearch search={asking.search} q={asked} onClose={onClose} />}
      {asking && 'tag' in asking && (
        <TagDialog
          tag={asking.tag}
          onClose={(to) => {
            onClose();
            if (to !== undefined) onQuery(withoutOrRenamed(q, asking.tag, to));
          }}
        />
      )}
      {asking && 'collection' in asking && (
        <CollectionDialog onClose={onClose} onMade={(id) => void navigate(`/collection/${id}`)} />
      )}
    </Suspense>
  );
}

/** The open search, after a tag it may ask for was given another name or taken away. */
const withoutOrRenamed = (q: string, tag: string, to: string): string => {
  if (to !== '') return renameTagIn(q, tag, to);
  return asksFor(q, 'tag', tag) ? toggled(q, 'tag', tag) : q;
};

function Empty({
  searched,
  meant,
  onMeant,
}: {
  searched: boolean;
  meant: string | undefined;
  onMeant: (q: string) => void;
}) {
  if (searched)
    return (
      <p className="max-w-[60ch] p-8 text-soft">
        {meant !== undefined && (
          <>
            Did you mean{' '}
            <button className="act" onClick={() => onMeant(meant)}>
              {meant}
            </button>
            ?{' '}
          </>
        )}
        Nothing here fits all of that. Take a part of the search away, or begin a word and let it be completed.
      </p>
    );
  return (
    <div className="max-w-[56ch] p-8">
      <h2 className="text-[18px]">Your reading belongs here</h2>
      <p className="mt-2 text-soft">
        Paste the address of a page above and press Keep: it is fetched, made complete, and opens with its text ready to
        mark. Files can be dropped here, too: PDF, books, documents, pictures, recordings, letters, saved pages.
      </p>
      <div className="mt-3">
        <Sample />
      </div>
    </div>
  );
}
