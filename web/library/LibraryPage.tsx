import { lazy, Suspense, useCallback, useState, type ReactNode } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { asksFor, renameTagIn, toggled } from '@avrelle/core/query';
import { type FoundSource, type LibraryOutline } from '@avrelle/core/wire';
import { sourcesQuery, useOpenClasses, useOutline } from '../data/queries';
import { State } from '../ui/State';
import { KeepBar } from './KeepBar';
import { LibraryBar } from './LibraryBar';
import { ListView } from './ListView';
import { QueryField } from './QueryField';
import { RowActions } from './RowActions';
import { Sidebar } from './Sidebar';
import { useAsked, VIEW_WORDS, VIEWS, type Asked, type Asking, type PartProps, type View } from './use-asked';
import { useChanging } from './use-changing';
import { useChosen, type Chosen } from './use-chosen';
import { useReadable } from './use-readable';
import { useSourceList } from './use-source-list';
import { PageHeading } from '../ui/PageHeading';

// What one begins with is there at once; the rest comes when it is asked for.
const Empty = lazy(() => import('./EmptyLibrary'));
const BulkBar = lazy(() => import('./BulkBar'));
const BoardView = lazy(() => import('./BoardView'));
const CalendarView = lazy(() => import('./CalendarView'));
const TableView = lazy(() => import('./TableView'));
const CollectionDialog = lazy(() => import('./CollectionDialog'));
const EditSource = lazy(() => import('./EditSource'));
const KeepSearch = lazy(() => import('./KeepSearch'));
const PlainForm = lazy(() => import('./PlainForm'));
const TagDialog = lazy(() => import('./TagDialog'));

/** So many can be chosen at once. */
const MOST_CHOSEN = 500;
const AT_ONCE = 200;

/** Chooses all that is found, as many as can be. */
function useChooseAll(asked: string, { sort }: Asked, total: number, chosen: Chosen): () => Promise<void> {
  const client = useQueryClient();
  return async () => {
    const pages = await Promise.all(
      Array.from({ length: Math.ceil(Math.min(total, MOST_CHOSEN) / AT_ONCE) }, (_, n) =>
        client.fetchQuery(sourcesQuery({ q: asked, sort, offset: n * AT_ONCE, limit: AT_ONCE })),
      ),
    );
    chosen.set(pages.flatMap((p) => p.sources).slice(0, MOST_CHOSEN));
  };
}

/** Every source one may read: searched, seen in the way that suits, and changed one by one or many at once. */
export default function LibraryPage() {
  const address = useAsked();
  const { q, to } = address;
  const { asked, faulty } = useReadable(q);
  const list = useSourceList(asked, address.sort);
  const outline = useOutline().data;
  const chosen = useChosen();
  const [asking, setAsking] = useState<Asking>();
  const [beside, setBeside] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  const onQuery = useCallback(
    (query: string): void => {
      to({ q: query || undefined });
      scroller?.scrollTo({ top: 0 });
    },
    [to, scroller],
  );
  const chooseAll = useChooseAll(asked, address, list.total, chosen);
  const common = { address, asked, list, chosen, onQuery, onAsk: setAsking };
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
        <Head {...common} />
        <KeepBar />
        <LibraryBar
          {...common}
          all={outline?.all}
          faulty={faulty}
          choosing={choosing}
          onChoosing={() => {
            setChoosing(!choosing);
            chosen.none();
          }}
          onBeside={() => setBeside(true)}
        />
        <Body {...common} scroller={scroller} collections={outline?.collections ?? []} onAll={() => void chooseAll()} />
      </main>
      <Dialogs asking={asking} q={q} asked={asked} onQuery={onQuery} onClose={() => setAsking(undefined)} />
    </div>
  );
}

function Head({ address: { q, view, setView }, asked, onQuery }: PartProps) {
  return (
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
            onClick={() => setView(v)}
            className={v === view ? 'border-b-2 border-tide font-semibold' : 'text-soft hover:text-ink'}
          >
            {VIEW_WORDS[v]}
          </button>
        ))}
      </div>
    </div>
  );
}

interface BodyProps extends PartProps {
  readonly scroller: HTMLElement | null;
  readonly collections: LibraryOutline['collections'];
  onAll(): void;
}

/** The sources in the view that is chosen; below, what can be done with those that are. */
function Body({ address, asked, list, chosen, onQuery, onAsk, scroller, collections, onAll }: BodyProps) {
  const { q, view, sort, to } = address;
  const classes = useOpenClasses().data ?? [];
  const changing = useChanging();
  const open = collections.filter((c) => c.owned || c.may === 'add');
  const actions = (source: FoundSource) => (
    <RowActions source={source} changing={changing} collections={open} onEdit={() => onAsk({ edit: source })} />
  );
  const shared = { scroller, list, chosen, actions };
  const views: Readonly<Record<View, () => ReactNode>> = {
    table: () => <TableView {...shared} changing={changing} sort={sort} onSort={(s) => to({ sort: s })} />,
    board: () => <BoardView q={asked} sort={sort} chosen={chosen} changing={changing} actions={actions} />,
    calendar: () => <CalendarView q={asked} onDay={(day) => to({ q: day, view: 'detailed' })} />,
    compact: () => <ListView key={view} {...shared} compact />,
    detailed: () => <ListView key={view} {...shared} compact={false} />,
  };
  return (
    <>
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
            collections={open}
            classes={classes}
            total={list.total}
            onAll={onAll}
          />
        </Suspense>
      )}
    </>
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
