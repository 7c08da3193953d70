import type { Annotation, PersonId } from '@avrelle/core/wire';
import { Quote } from '../../../ui/Quote';
import { Sign } from '../../../ui/Sign';
import { shortName } from '../../../ui/when';

interface Range {
  readonly start: number;
  readonly end: number;
}

interface Props {
  readonly annotations: readonly Annotation[];
  readonly text: string;
  readonly me: PersonId;
  readonly readOnly: boolean;
  onAccept(annotation: Annotation, range: Range): void;
  onChoose(annotation: Annotation): void;
  /** Shows a candidate on the page; without it there is no page beside the list. */
  onShow?(range: Range): void;
}

/** Annotations without their passage, each with the places that come nearest; its author puts it at one, or chooses another. */
export function UnplacedList({ annotations, text, me, readOnly, onAccept, onChoose, onShow }: Props) {
  return (
    <ul>
      {annotations.map((a) => {
        const mine = a.author.id === me && !readOnly;
        return (
          <li
            key={a.id}
            aria-label={`Unplaced: ${a.anchor?.quote.exact.slice(0, 60)}`}
            className="border-t border-rule py-3 first:border-t-0"
          >
            <p className="flex items-baseline gap-2 text-[13px] text-soft">
              <Sign kind={a.kind} className="w-4" />
              <b className="whitespace-nowrap font-semibold text-ink">{shortName(a.author.name)}</b>
              <span className="min-w-0">
                <Quote of={a} className="text-[15px] italic text-ink" />
              </span>
            </p>
            {a.note && <p className="mt-1 pl-6 text-[14.5px]">{a.note}</p>}
            {a.place!.candidates.map((c) => (
              <div
                key={c.start}
                className="mt-2 ml-6 grid grid-cols-[1fr_auto] items-baseline gap-x-5 border-l-2 border-strong pl-3 max-[900px]:grid-cols-1"
              >
                <p className="font-read text-[15px] text-soft">
                  {before(text, c)}
                  <span className="text-ink underline decoration-[var(--rule-strong)] underline-offset-4">
                    {text.slice(c.start, c.end)}
                  </span>
                  {after(text, c)}{' '}
                  <span className="font-ui text-[12.5px] text-faint">{Math.round(c.likeness * 100)} % alike</span>
                </p>
                <span className="flex gap-4 text-[14px]">
                  {onShow && (
                    <button className="act" onClick={() => onShow(c)}>
                      Show
                    </button>
                  )}
                  {mine && (
                    <button className="act" onClick={() => onAccept(a, c)}>
                      Put it here
                    </button>
                  )}
                </span>
              </div>
            ))}
            {mine ? (
              <p className="mt-2 pl-6 text-[14px]">
                {a.place!.candidates.length === 0 && <span className="text-soft">No passage comes near it. </span>}
                <button className="act" onClick={() => onChoose(a)}>
                  Choose its place on the page
                </button>
              </p>
            ) : (
              !readOnly && (
                <p className="mt-2 pl-6 text-[13px] text-faint">Only {shortName(a.author.name)} can place it.</p>
              )
            )}
          </li>
        );
      })}
    </ul>
  );
}

const AROUND = 70;
const before = (text: string, { start }: Range): string =>
  `…${text
    .slice(Math.max(0, start - AROUND), start)
    .replace(/^\S*\s/, '')
    .replace(/\s+/g, ' ')}`;
const after = (text: string, { end }: Range): string =>
  `${text
    .slice(end, end + AROUND)
    .replace(/\s\S*$/, '')
    .replace(/\s+/g, ' ')}…`;
