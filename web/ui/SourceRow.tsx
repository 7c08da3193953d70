import type { CSSProperties, ReactNode, Ref } from 'react';
import { Link } from 'react-router';
import { isRead } from '@avrelle/core/reading';
import { KIND_WORDS, STATE_WORDS, type FoundSource, type SourceRow as Row } from '@avrelle/core/wire';
import { Strand } from './Strand';
import { Sign } from './Sign';
import { MarkedText } from './MarkedText';
import { TagNames } from './TagNames';
import { count, day, minutes } from './when';

export interface RowProps {
  readonly source: FoundSource;
  readonly number?: number;
  readonly back?: { readonly to: string; readonly words: string };
  readonly excerpts?: boolean;
  /** Whether it is chosen, where several can be. */
  readonly chosen?: boolean;
  onChoose?(): void;
  readonly children?: ReactNode;
  /** Of a long list, of which only what is near is there. */
  readonly virtual?: {
    readonly ref: Ref<HTMLLIElement>;
    readonly style: CSSProperties;
    readonly index: number;
    readonly total: number;
  };
}

/** A source wherever sources are listed: what it is, its strand, how much is left. */
export function SourceRow({ source, number, back, excerpts = false, chosen, onChoose, virtual, children }: RowProps) {
  const meta = [source.author, source.site, KIND_WORDS[source.kind], `kept ${day(source.keptAt)}`, sharing(source)]
    .filter(Boolean)
    .join(' · ');
  return (
    <li
      ref={virtual?.ref}
      style={virtual?.style}
      data-index={virtual?.index}
      aria-setsize={virtual?.total}
      aria-posinset={virtual && virtual.index + 1}
      className={`group grid grid-cols-[26px_1fr_190px_92px] gap-x-4 border-b border-rule px-[30px] pb-[11px] pt-[13px] hover:bg-wash has-[a:focus-visible]:bg-wash max-[900px]:grid-cols-[1fr_auto] max-[900px]:px-4 max-[900px]:[[data-choosing]_&]:pl-11 ${chosen ? 'bg-wash' : ''}`}
    >
      <Numbered number={number} source={source} chosen={chosen} onChoose={onChoose} />
      <div className="min-w-0">
        <h2 className="text-[18px] leading-[23px]">
          <Link
            data-row
            to={`/source/${source.id}`}
            state={back ? { back } : undefined}
            dir="auto"
            lang={source.language || undefined}
          >
            {source.title}
          </Link>
        </h2>
        <p className="mt-px text-[13.5px] text-soft">
          {meta}
          {source.tags.length > 0 && (
            <>
              {' '}
              ·{' '}
              <span className="text-tide">
                <TagNames tags={source.tags.slice(0, 5)} />
              </span>
            </>
          )}
        </p>
      </div>
      <div className="pt-1 [grid-column:3] [grid-row:1/span_3] max-[900px]:hidden">
        <Strand strand={source.strand} />
        <p className="text-[12.5px] text-faint">{marksOf(source)}</p>
      </div>
      <div className="text-right text-[13.5px] text-soft [grid-column:4] [grid-row:1/span_3] max-[900px]:[grid-column:2] max-[900px]:[grid-row:1]">
        <b className="block font-semibold text-ink">{leftOf(source)}</b>
        {STATE_WORDS[source.state].toLowerCase()}
        {children}
      </div>
      <Passages source={source} back={back} excerpts={excerpts} />
    </li>
  );
}

/** Below the row: one's remark, the passage that was found, and what is marked. */
function Passages({ source, back, excerpts }: Pick<RowProps, 'source' | 'back' | 'excerpts'>) {
  return (
    <>
      {excerpts && source.remark && (
        <p className="mt-1 text-[14px] italic text-soft [grid-column:2/3] max-[900px]:[grid-column:1/-1]">
          {source.remark}
        </p>
      )}
      {source.passage && (
        <p
          dir="auto"
          className="mt-1.5 border-s-2 border-tide ps-3.5 font-read text-[15px] leading-[21px] [grid-column:2/3] max-[900px]:[grid-column:1/-1]"
        >
          <Link
            to={`/source/${source.id}?from=${source.passage.start}&to=${source.passage.end}`}
            state={back ? { back } : undefined}
            className="block"
          >
            <MarkedText pieces={source.passage.snippet} />
          </Link>
        </p>
      )}
      {excerpts &&
        source.excerpts.map((x) => (
          <p
            key={x.id}
            dir="auto"
            className="mt-1.5 whitespace-pre-line border-s-2 border-strong ps-3.5 font-read text-[15px] leading-[21px] text-soft [grid-column:2/3] max-[900px]:[grid-column:1/-1]"
          >
            <Link to={`/source/${source.id}?at=${x.id}`} className="block">
              <Sign kind={x.kind} className="me-1.5 text-[14px]" />
              <span className="text-ink">
                <MarkedText pieces={x.quote} />
              </span>
              {x.note && ` — ${x.note}`}
            </Link>
          </p>
        ))}
    </>
  );
}

/** The number of a row; where rows can be chosen, the box for that, in its place. */
export function Numbered({
  number,
  source,
  chosen,
  onChoose,
}: Pick<RowProps, 'number' | 'source' | 'chosen' | 'onChoose'>) {
  if (!onChoose)
    return (
      <span className="text-right font-read text-faint max-[900px]:hidden" aria-hidden="true">
        {number}
      </span>
    );
  return (
    <label className="relative text-right font-read text-faint max-[900px]:hidden max-[900px]:[[data-choosing]_&]:absolute max-[900px]:[[data-choosing]_&]:inset-y-0 max-[900px]:[[data-choosing]_&]:left-0 max-[900px]:[[data-choosing]_&]:block max-[900px]:[[data-choosing]_&]:w-11">
      <span
        aria-hidden="true"
        className={`max-[900px]:hidden ${chosen ? 'invisible' : 'group-hover:invisible group-focus-within:invisible'}`}
      >
        {number}
      </span>
      <input
        type="checkbox"
        aria-label={`Choose ${source.title}`}
        tabIndex={-1}
        checked={chosen ?? false}
        onChange={onChoose}
        className={`absolute right-0 top-[5px] accent-[var(--tide)] max-[900px]:right-[12px] max-[900px]:top-[14px] max-[900px]:size-5 ${chosen ? '' : 'opacity-0 group-hover:opacity-100 group-focus-within:opacity-100 max-[900px]:opacity-100'}`}
      />
    </label>
  );
}

export const leftOf = ({ minutes: all, readShare }: Row): string =>
  isRead(readShare) ? 'read' : `${minutes(all * (1 - readShare))} ${readShare > 0 ? 'left' : ''}`;
export function marksOf({ marks, mine }: Row): string {
  if (marks === 0) return 'no marks yet';
  if (mine === 0) return count(marks, 'mark');
  return `${count(marks, 'mark')}, ${mine === marks ? 'all mine' : `${mine} mine`}`;
}

const sharing = ({ classes, owned, ownerName }: Row): string => {
  if (classes.length === 0) return '';
  const names = classes.map((c) => c.name).join(' and ');
  return owned ? `shared with ${names}` : `from ${ownerName}, for ${names}`;
};
