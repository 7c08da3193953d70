import { DropdownMenu } from 'radix-ui';
import { Link, useNavigate } from 'react-router';
import { SOURCE_SORTS, type SourceSort } from '@avrelle/core/wire';
import { hrefOf } from '../data/call';
import { here, useOutline } from '../data/queries';
import { Menu } from '../ui/Menu';
import { count } from '../ui/when';
import { StillShown } from './StillShown';
import type { PartProps } from './use-asked';

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

interface Props extends Omit<PartProps, 'chosen'> {
  /** How many sources there are in all. */
  readonly all: number | undefined;
  readonly faulty: boolean;
  readonly choosing: boolean;
  onChoosing(): void;
  onBeside(): void;
}

/** How many are found, in which order, and what can be done with the search. */
export function LibraryBar({ address, asked, list, onQuery, onAsk, ...rest }: Props) {
  const { q, view, sort, hasWords, tag, to } = address;
  const { all, faulty } = rest;
  return (
    <div className="flex flex-wrap items-baseline gap-x-5 border-b border-rule px-[30px] py-1.5 text-[13.5px] text-soft max-[900px]:px-4">
      <OnPhones {...rest} chooses={view === 'detailed' || view === 'compact'} />
      <span aria-live="polite">{!list.isPending && !list.error && foundWords(list.total, q, all)}</span>
      {view !== 'calendar' && (
        <SortMenu sort={sort ?? (hasWords ? 'best' : 'touched')} hasWords={hasWords} onSort={(s) => to({ sort: s })} />
      )}
      {list.total > 0 && <ExportMenu q={asked} />}
      {q && <OfSearch onEnd={() => onQuery('')} onSave={() => onAsk({ search: undefined })} />}
      {faulty && <StillShown q={q} asked={asked} onMend={onQuery} />}
      {tag && (
        <Link className="act" to={`/topic?${new URLSearchParams({ tag })}`}>
          The page about #{tag}
        </Link>
      )}
      <WorkThrough />
    </div>
  );
}

const foundWords = (found: number, q: string, all: number | undefined): string =>
  q ? `${found} of ${all ?? '…'}` : count(found, 'source');

function OfSearch({ onEnd, onSave }: { readonly onEnd: () => void; readonly onSave: () => void }) {
  return (
    <>
      <button className="act" onClick={onEnd}>
        Show all
      </button>
      <button className="act" onClick={onSave}>
        Save this search
      </button>
    </>
  );
}

type OnPhonesProps = Pick<Props, 'choosing' | 'onChoosing' | 'onBeside'> & { readonly chooses: boolean };

/** What stands beside the list, or at each row, where there is more room. */
function OnPhones({ choosing, chooses, onChoosing, onBeside }: OnPhonesProps) {
  return (
    <>
      <button className="act hidden max-[900px]:block" onClick={onBeside}>
        Filter
      </button>
      {chooses && (
        <button aria-pressed={choosing} className="act hidden max-[900px]:block" onClick={onChoosing}>
          {choosing ? 'Done choosing' : 'Choose'}
        </button>
      )}
    </>
  );
}

function WorkThrough() {
  const navigate = useNavigate();
  const toRead = useOutline().data?.states.to_read ?? 0;
  if (toRead === 0) return null;
  return (
    <button className="act ml-auto" onClick={() => void navigate('/work-through')}>
      Work through what is to read: {toRead}
    </button>
  );
}

interface SortProps {
  readonly sort: SourceSort;
  readonly hasWords: boolean;
  onSort(sort: SourceSort): void;
}

/** What fits best comes first only where words are looked for. */
function SortMenu({ sort, hasWords, onSort }: SortProps) {
  return (
    <Menu words={SORT_WORDS[sort]}>
      {SOURCE_SORTS.filter((s) => hasWords || s !== 'best').map((s) => (
        <DropdownMenu.Item key={s} className="item" onSelect={() => onSort(s)}>
          {SORT_WORDS[s]}
        </DropdownMenu.Item>
      ))}
    </Menu>
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
