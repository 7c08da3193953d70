import { Link } from 'react-router';
import { KIND_WORDS, STATE_WORDS, type SourceRow as Row } from '@avrelle/core/wire';
import { Strand } from './Strand';
import { Sign } from './Sign';
import { count, day, minutes } from './when';

interface Props {
  readonly source: Row;
  readonly number?: number;
  readonly back?: { readonly to: string; readonly words: string };
  readonly excerpts?: boolean;
  readonly children?: React.ReactNode;
}

/** A source wherever sources are listed: what it is, its strand, how much is left. */
export function SourceRow({ source, number, back, excerpts = false, children }: Props) {
  const left = source.minutes * (1 - source.readShare);
  const meta = [source.author, source.site, KIND_WORDS[source.kind], `kept ${day(source.keptAt)}`, sharing(source)].filter(Boolean).join(' · ');
  return (
    <li className="grid grid-cols-[26px_1fr_190px_92px] gap-x-4 border-b border-rule px-[30px] pb-[11px] pt-[13px] hover:bg-wash has-[a:focus-visible]:bg-wash max-[900px]:grid-cols-[1fr_auto] max-[900px]:px-4">
      <span className="text-right font-read text-faint max-[900px]:hidden" aria-hidden="true">{number}</span>
      <div className="min-w-0">
        <h2 className="text-[18px] leading-[23px]"><Link to={`/source/${source.id}`} state={back ? { back } : undefined} lang={source.language || undefined}>{source.title}</Link></h2>
        <p className="mt-px text-[13.5px] text-soft">{meta}{source.tags.length > 0 && <> · <span className="text-tide">{source.tags.slice(0, 5).map((t) => `#${t}`).join(' ')}</span></>}</p>
      </div>
      <div className="pt-1 [grid-column:3] [grid-row:1/span_3] max-[900px]:hidden"><Strand strand={source.strand} /><p className="text-[12.5px] text-faint">{source.marks === 0 ? 'no marks yet' : `${count(source.marks, 'mark')}${source.mine === source.marks ? ', all mine' : source.mine > 0 ? `, ${source.mine} mine` : ''}`}</p></div>
      <div className="text-right text-[13.5px] text-soft [grid-column:4] [grid-row:1/span_3] max-[900px]:[grid-column:2] max-[900px]:[grid-row:1]"><b className="block font-semibold text-ink">{source.readShare > 0.97 ? 'read' : `${minutes(left)} ${source.readShare > 0 ? 'left' : ''}`}</b>{STATE_WORDS[source.state].toLowerCase()}{children}</div>
      {excerpts && source.excerpts.map((x) => (
        <p key={x.id} className="mt-1.5 border-l-2 border-strong pl-3.5 font-read text-[15px] leading-[21px] text-soft [grid-column:2/3] max-[900px]:[grid-column:1/-1]">
          <Link to={`/source/${source.id}?at=${x.id}`} className="block"><Sign kind={x.kind} className="mr-1.5 text-[14px]" /><span className="text-ink">{x.quote}</span>{x.note && ` — ${x.note}`}</Link>
        </p>
      ))}
    </li>
  );
}

const sharing = ({ classes, owned, ownerName }: Row): string => {
  if (classes.length === 0) return '';
  const names = classes.map((c) => c.name).join(' and ');
  return owned ? `shared with ${names}` : `from ${ownerName}, for ${names}`;
};
