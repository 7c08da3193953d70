import {
  useLayoutEffect,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
} from 'react';
import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import { KIND_WORDS, STATE_WORDS, type FoundSource, type SourceSort } from '@avrelle/core/wire';
import { leftOf } from '../ui/SourceRow';
import { Strand } from '../ui/Strand';
import { TagNames } from '../ui/TagNames';
import { day } from '../ui/when';
import { useStored } from '../ui/use-stored';
import type { Fact } from './correct-facts';
import { EditableCell, type Onward } from './EditableCell';
import type { ViewProps } from './ListView';
import type { Changing } from './use-changing';
import { useCorrections } from './use-corrections';
import { useRows } from './use-rows';
import { isByFinger } from '../ui/by-finger';
import { Tick } from '../ui/Tick';

const ROW = isByFinger() ? 45 : 34;
const LEAST = 60;

interface Column {
  readonly name: string;
  readonly width: number;
  readonly sort?: SourceSort;
  readonly cell: (source: FoundSource) => ReactNode;
}
const COLUMNS = {
  title: {
    name: 'Title',
    width: 250,
    sort: 'title',
    cell: (s) => (
      <Link
        data-row
        to={`/source/${s.id}`}
        dir="auto"
        lang={s.language || undefined}
        className="reach font-read text-[15px] font-semibold"
      >
        {s.title}
      </Link>
    ),
  },
  author: { name: 'Author', width: 128, sort: 'author', cell: (s) => s.author },
  site: { name: 'Site', width: 150, cell: (s) => s.site },
  kind: { name: 'Type', width: 84, cell: (s) => KIND_WORDS[s.kind] },
  state: { name: 'State', width: 82, cell: (s) => STATE_WORDS[s.state].toLowerCase() },
  tags: {
    name: 'Tags',
    width: 134,
    cell: (s) => (
      <span className="text-tide">
        <TagNames tags={s.tags} />
      </span>
    ),
  },
  strand: { name: 'Strand', width: 120, cell: (s) => <Strand strand={s.strand} width={104} /> },
  marks: { name: 'Marks', width: 60, sort: 'marks', cell: (s) => s.marks || '' },
  progress: {
    name: 'Read',
    width: 70,
    sort: 'progress',
    cell: (s) => (s.readShare > 0 ? `${Math.round(s.readShare * 100)} %` : ''),
  },
  minutes: { name: 'Time', width: 84, sort: 'minutes', cell: leftOf },
  kept: { name: 'Kept', width: 76, sort: 'saved', cell: (s) => day(s.keptAt) },
  published: { name: 'Published', width: 100, cell: (s) => s.publishedAt?.slice(0, 10) ?? '' },
  language: { name: 'Language', width: 80, cell: (s) => s.language },
} as const satisfies Readonly<Record<string, Column>>;
type Key = keyof typeof COLUMNS;
/** What can be corrected in the row itself. */
const FACTS: Partial<Record<Key, Fact>> = {
  title: 'title',
  author: 'author',
  site: 'site',
  published: 'publishedAt',
  language: 'language',
};
const factOf = (source: FoundSource, fact: Fact): string =>
  fact === 'publishedAt' ? (source.publishedAt ?? '').slice(0, 10) : source[fact];
const KEYS = Object.keys(COLUMNS) as Key[];
const FIRST: readonly Key[] = ['title', 'author', 'kind', 'state', 'tags', 'marks', 'minutes', 'kept'];

interface Props extends ViewProps {
  readonly changing: Changing;
  readonly sort: SourceSort | undefined;
  readonly onSort: (sort: SourceSort | undefined) => void;
}

/** Which columns there are, and how wide: one's own affair, kept on this device. */
function useColumns() {
  const [shown, setShown] = useStored<readonly Key[]>('library.columns', FIRST);
  const [widths, setWidths] = useStored<Partial<Record<Key, number>>>('library.widths', {});
  const columns = shown.filter((key) => key in COLUMNS);
  const width = (key: Key): number => widths[key] ?? COLUMNS[key].width;
  return {
    ...{ columns, setShown, width },
    setWidth: (key: Key, to: number): void => setWidths({ ...widths, [key]: Math.max(LEAST, to) }),
    grid: { gridTemplateColumns: `40px ${columns.map((key) => `${width(key)}px`).join(' ')} 76px` },
  };
}

const STEPS = { next: 1, before: -1, row: NaN, elsewhere: NaN } as const satisfies Record<Onward, number>;

/** Correcting facts in their cells, and going on from one to the other. */
function useCells(changing: Changing, columns: readonly Key[], list: { readonly current: HTMLElement | null }) {
  const corrections = useCorrections(changing);
  const { editing, edit, editAgain, leave } = useEditing(list);
  const facts = columns.filter((key) => FACTS[key]);
  const done = (source: FoundSource, key: Key, value: string | undefined, onward: Onward): void => {
    const fact = FACTS[key]!;
    const next = facts[facts.indexOf(key) + STEPS[onward]];
    if (value !== undefined)
      void corrections.send(source, fact, value).then((held) => held || editAgain({ id: source.id, key }));
    else if (corrections.of(source, fact)?.failed) corrections.leave(source, fact);
    if (next) edit({ id: source.id, key: next });
    else leave(source.id, onward !== 'elsewhere');
  };
  const cell = (source: FoundSource, key: Key): ReactNode => {
    const fact = source.owned ? FACTS[key] : undefined;
    if (!fact)
      return (
        <span key={key} role="cell" className="truncate px-2">
          {COLUMNS[key].cell(source)}
        </span>
      );
    const here = editing?.id === source.id && editing.key === key;
    const written = corrections.of(source, fact);
    return (
      <EditableCell
        key={`${key} ${here}`}
        label={`${COLUMNS[key].name} of ${source.title}`}
        value={factOf(source, fact)}
        written={written}
        editing={here}
        onEdit={() => edit({ id: source.id, key })}
        onDone={(value, onward) => done(source, key, value, onward)}
      >
        {COLUMNS[key].cell(written ? { ...source, [fact]: written.words } : source)}
      </EditableCell>
    );
  };
  return { cell, editing, edit };
}

/** As a table: which columns, how wide and by which it is ordered is one's own affair. */
export default function TableView({ scroller, list, chosen, actions, changing, sort, onSort }: Props) {
  const { columns, setShown, width, setWidth, grid } = useColumns();
  const rows = useRows(
    scroller,
    list.total,
    { height: ROW, measured: false },
    {
      onLook: list.look,
      onChoose: (index) => {
        const source = list.row(index);
        if (source) chosen.toggle(source);
      },
    },
  );
  const { cell, editing, edit } = useCells(changing, columns, rows.list);
  const onKeyDown = (event: KeyboardEvent): void => {
    const row = (event.target as HTMLElement).closest<HTMLElement>('[data-index]');
    const source = event.key === 'F2' ? list.row(Number(row?.dataset.index)) : undefined;
    if (!source?.owned) return rows.onKeyDown(event);
    event.preventDefault();
    edit({ id: source.id, key: 'title' });
  };
  return (
    <div className="overflow-x-auto">
      <div
        role="table"
        aria-label="Sources"
        aria-rowcount={list.total + 1}
        className="w-max min-w-full px-[14px] text-[14px]"
      >
        <div
          role="row"
          style={grid}
          className="sticky top-0 z-10 grid items-baseline border-b border-strong bg-sheet text-[13px] text-soft"
        >
          <span role="columnheader">
            <span className="sr-only">Chosen</span>
          </span>
          {columns.map((key) => (
            <Head
              key={key}
              column={COLUMNS[key]}
              sorted={sort !== undefined && (COLUMNS[key] as Column).sort === sort}
              onSort={onSort}
              onWidth={(to) => setWidth(key, to)}
              width={width(key)}
            />
          ))}
          <span role="columnheader">
            <Choose shown={columns} onShow={setShown} />
          </span>
        </div>
        <div
          ref={rows.list}
          role="rowgroup"
          className="relative"
          style={{ height: rows.virtual.getTotalSize() }}
          onKeyDown={onKeyDown}
        >
          {rows.virtual.getVirtualItems().map(({ index, start, key }) => {
            const source = list.row(index);
            return (
              <TableRow
                key={source && source.id === editing?.id ? 'edited' : key}
                index={index}
                source={source}
                chosen={chosen}
                style={{ ...grid, height: ROW, transform: `translateY(${start - rows.top}px)` }}
              >
                {source && columns.map((column) => cell(source, column))}
                {source && <span role="cell">{actions(source)}</span>}
              </TableRow>
            );
          })}
        </div>
      </div>
    </div>
  );
}

interface TableRowProps {
  readonly index: number;
  /** Undefined until it has come. */
  readonly source: FoundSource | undefined;
  readonly chosen: ViewProps['chosen'];
  readonly style: CSSProperties;
  readonly children: ReactNode;
}

function TableRow({ index, source, chosen, style, children }: TableRowProps) {
  const isChosen = source && chosen.has(source.id);
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      data-index={index}
      data-source={source?.id}
      style={style}
      className={`absolute inset-x-0 grid items-center border-b border-rule hover:bg-wash ${isChosen ? 'bg-wash' : ''}`}
    >
      {source && (
        <span role="cell" className="pl-3">
          <Tick
            label={`Choose ${source.title}`}
            checked={chosen.has(source.id)}
            onChange={() => chosen.toggle(source)}
            isSkipped
          />
        </span>
      )}
      {children}
    </div>
  );
}

interface Cell {
  readonly id: string;
  readonly key: Key;
}

/** Which cell is being corrected; once none is, the row can have the focus again. */
function useEditing(list: { readonly current: HTMLElement | null }) {
  const [editing, setEditing] = useState<Cell>();
  const back = useRef<string>(undefined);
  useLayoutEffect(() => {
    if (editing || !back.current) return;
    const row = list.current?.querySelector<HTMLElement>(`[data-source="${back.current}"]`);
    back.current = undefined;
    row?.querySelector<HTMLElement>('[data-row]')?.focus({ preventScroll: true });
  }, [editing, list]);
  const leave = (id: string, toRow: boolean): void => {
    back.current = toRow ? id : undefined;
    setEditing((now) => (now?.id === id ? undefined : now));
  };
  /** Unless one has gone on to another by now. */
  const editAgain = (cell: Cell): void => setEditing((now) => now ?? cell);
  return { editing, edit: setEditing, editAgain, leave };
}

/** The head of a column: pressed, it orders by it; its edge, dragged or moved by arrow keys, makes it wider. */
function Head({
  column,
  sorted,
  width,
  onSort,
  onWidth,
}: {
  column: Column;
  sorted: boolean;
  width: number;
  onSort: (sort: SourceSort | undefined) => void;
  onWidth: (width: number) => void;
}) {
  const from = useRef<{ x: number; width: number }>(undefined);
  const move = (event: PointerEvent): void => {
    if (from.current) onWidth(from.current.width + event.clientX - from.current.x);
  };
  return (
    <span
      role="columnheader"
      aria-sort={sorted ? 'other' : 'none'}
      className="relative flex items-baseline px-2 py-1.5"
    >
      {column.sort ? (
        <button
          className={sorted ? 'font-semibold text-ink' : 'hover:text-ink'}
          onClick={() => onSort(sorted ? undefined : column.sort)}
        >
          {column.name}
          {sorted && <span aria-hidden="true"> ↓</span>}
        </button>
      ) : (
        column.name
      )}
      <span
        role="separator"
        aria-orientation="vertical"
        aria-label={`Width of ${column.name}`}
        aria-valuenow={width}
        tabIndex={0}
        className="absolute right-0 top-1 h-5 w-[7px] cursor-col-resize touch-none border-r border-rule hover:border-tide pointer-coarse:-right-[22px] pointer-coarse:top-0 pointer-coarse:h-[44px] pointer-coarse:w-[44px] pointer-coarse:border-r-0 pointer-coarse:after:absolute pointer-coarse:after:inset-y-3 pointer-coarse:after:left-1/2 pointer-coarse:after:border-r pointer-coarse:after:border-strong"
        onPointerDown={(e) => {
          from.current = { x: e.clientX, width };
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={move}
        onPointerUp={() => {
          from.current = undefined;
        }}
        onKeyDown={(e) => {
          const by = { ArrowLeft: -10, ArrowRight: 10 }[e.key];
          if (by) {
            e.preventDefault();
            onWidth(width + by);
          }
        }}
      />
    </span>
  );
}

function Choose({ shown, onShow }: { shown: readonly Key[]; onShow: (shown: readonly Key[]) => void }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="hover:text-ink">
        Columns <span aria-hidden="true">▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={6} className="over py-1.5 text-[14px]">
          {KEYS.map((key) => (
            <DropdownMenu.CheckboxItem
              key={key}
              className="item"
              disabled={key === 'title'}
              checked={shown.includes(key)}
              onSelect={(e) => e.preventDefault()}
              onCheckedChange={(on) =>
                onShow(on ? KEYS.filter((k) => k === key || shown.includes(k)) : shown.filter((k) => k !== key))
              }
            >
              <span aria-hidden="true" className="w-3 text-tide">
                {shown.includes(key) ? '✓' : ''}
              </span>
              {COLUMNS[key].name}
            </DropdownMenu.CheckboxItem>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
