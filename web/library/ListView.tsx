import { Fragment, type ReactNode } from 'react';
import { Link } from 'react-router';
import { KIND_WORDS, STATE_WORDS, type FoundSource } from '@avrelle/core/wire';
import { isByFinger } from '../ui/by-finger';
import { leftOf, marksOf, Numbered, SourceRow } from '../ui/SourceRow';
import { Strand } from '../ui/Strand';
import { TagName } from '../ui/TagNames';
import { day } from '../ui/when';
import type { Chosen } from './use-chosen';
import { useRows } from './use-rows';
import type { SourceList } from './use-source-list';

export interface ViewProps {
  /** What scrolls, once it is there. */
  readonly scroller: HTMLElement | null;
  readonly list: SourceList;
  readonly chosen: Chosen;
  /** What can be done with one of them. */
  actions(source: FoundSource): ReactNode;
}

const HEIGHTS = { detailed: 92, compact: isByFinger() ? 45 : 35 } as const;

/** One below the other: with all that is known of each, or a line each. */
export function ListView({
  scroller,
  list,
  chosen,
  actions,
  compact = false,
}: ViewProps & { readonly compact?: boolean }) {
  const rows = useRows(
    scroller,
    list.total,
    { height: HEIGHTS[compact ? 'compact' : 'detailed'], measured: !compact },
    {
      onLook: list.look,
      onChoose: (index) => {
        const source = list.row(index);
        if (source) chosen.toggle(source);
      },
    },
  );
  return (
    <ol
      ref={rows.list}
      aria-label="Sources"
      className="relative"
      style={{ height: rows.virtual.getTotalSize() }}
      onKeyDown={rows.onKeyDown}
    >
      {rows.virtual.getVirtualItems().map(({ index, start, key }) => {
        const source = list.row(index);
        const place = {
          ref: rows.virtual.measureElement,
          index,
          total: list.total,
          style: { position: 'absolute', top: 0, left: 0, right: 0, transform: `translateY(${start - rows.top}px)` },
        } as const;
        if (!source)
          return (
            <li
              key={key}
              ref={place.ref}
              data-index={index}
              aria-hidden="true"
              style={{ ...place.style, height: compact ? HEIGHTS.compact : HEIGHTS.detailed }}
              className="border-b border-rule"
            />
          );
        const common = {
          source,
          number: index + 1,
          chosen: chosen.has(source.id),
          onChoose: () => chosen.toggle(source),
          virtual: place,
        };
        return compact ? (
          <Line key={key} {...common}>
            {actions(source)}
          </Line>
        ) : (
          <SourceRow key={key} {...common} excerpts>
            {actions(source)}
          </SourceRow>
        );
      })}
    </ol>
  );
}

/** A source in one line. */
function Line({
  source,
  number,
  chosen,
  onChoose,
  virtual,
  children,
}: {
  source: FoundSource;
  number: number;
  chosen: boolean;
  onChoose: () => void;
  virtual: { ref: (node: HTMLLIElement | null) => void; style: React.CSSProperties; index: number; total: number };
  children: ReactNode;
}) {
  return (
    <li
      ref={virtual.ref}
      style={{ ...virtual.style, height: HEIGHTS.compact }}
      data-index={virtual.index}
      aria-setsize={virtual.total}
      aria-posinset={virtual.index + 1}
      className={`group grid grid-cols-[26px_minmax(0,5fr)_minmax(0,3fr)_110px_76px_74px_46px] items-center gap-x-4 border-b border-rule px-[30px] text-[14px] hover:bg-wash has-[a:focus-visible]:bg-wash max-[900px]:grid-cols-[minmax(0,1fr)_auto] max-[900px]:px-4 max-[900px]:[[data-choosing]_&]:pl-11 ${chosen ? 'bg-wash' : ''}`}
    >
      <Numbered number={number} source={source} chosen={chosen} onChoose={onChoose} />
      <Link
        data-row
        to={`/source/${source.id}`}
        dir="auto"
        lang={source.language || undefined}
        className="truncate font-read text-[15.5px] font-semibold"
      >
        {source.title}
      </Link>
      <span className="truncate text-soft max-[900px]:hidden">
        {source.author || source.site || KIND_WORDS[source.kind]}
        {source.tags.slice(0, 3).map((t) => (
          <Fragment key={t}>
            {' '}
            · <TagName tag={t} />
          </Fragment>
        ))}
      </span>
      <span className="max-[900px]:hidden" title={marksOf(source)}>
        <Strand strand={source.strand} width={110} />
      </span>
      <span className="truncate text-right text-soft">{leftOf(source)}</span>
      <span className="text-right text-soft max-[900px]:hidden">{day(source.keptAt)}</span>
      <span className="whitespace-nowrap max-[900px]:hidden">
        <span className="sr-only">{STATE_WORDS[source.state]}</span>
        {children}
      </span>
    </li>
  );
}
