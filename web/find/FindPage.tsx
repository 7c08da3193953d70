import type { ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { AnnotationHit, PassageHit, Snippet } from '@avrelle/core/wire';
import { useFind } from '../data/queries';
import { Sign } from '../ui/Sign';
import { State } from '../ui/State';
import { count, shortName } from '../ui/when';

/** What was found: notes and quotations first, then passages of texts, each in its context and one click from its place. */
export default function FindPage() {
  const [params] = useSearchParams();
  const query = params.get('q') ?? '';
  const found = useFind(query);
  const back = { to: `/find?q=${encodeURIComponent(query)}`, words: `Find: ${query}` };
  if (!query.trim()) return <main className="bg-sheet p-8"><h1 className="text-[23px]">Find</h1><p className="mt-2 max-w-[60ch] text-soft">Write words in the field above: titles, texts, notes and quotations are searched. “Words in quotation marks” are looked for together, and #tag finds what bears the tag.</p></main>;
  return (
    <main className="min-h-0 overflow-y-auto bg-sheet">
      <div className="border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4"><h1 className="text-[23px]">Find: <span className="italic">{query}</span></h1></div>
      <State of={found}>
        {found.data && found.data.annotations.length + found.data.passages.length === 0 && <p className="p-8 text-soft">Nothing you can see holds these words. Try fewer of them, or only their beginning.</p>}
        <Group title="In notes and quotations" more={found.data?.moreAnnotations} hits={found.data?.annotations ?? []}>{(hit, key) => <NoteHit key={key} hit={hit} back={back} />}</Group>
        <Group title="In texts" more={found.data?.morePassages} hits={found.data?.passages ?? []}>{(hit, key) => <TextHit key={key} hit={hit} back={back} />}</Group>
      </State>
    </main>
  );
}

interface Back { readonly to: string; readonly words: string }

function Group<Hit>({ title, more, hits, children }: { title: string; more: boolean | undefined; hits: readonly Hit[]; children: (hit: Hit, key: number) => ReactNode }) {
  if (hits.length === 0) return null;
  return (
    <section aria-label={title} className="px-[30px] pt-5 max-[900px]:px-4">
      <h2 className="flex items-baseline gap-3 text-[17px]">{title} <span className="font-ui text-[13px] font-normal text-soft">{more ? `the best ${hits.length}; more words find fewer` : count(hits.length, 'place')}</span></h2>
      <ul className="mt-2 max-w-[900px]">{hits.map(children)}</ul>
    </section>
  );
}

function Row({ to, back, head, children }: { to: string; back: Back; head: ReactNode; children: ReactNode }) {
  return <li className="border-t border-rule"><Link to={to} state={{ back }} className="block py-2.5 hover:bg-wash"><p className="text-[13.5px] text-soft">{head}</p>{children}</Link></li>;
}

const QUOTE = 'mt-0.5 font-read text-[16px] leading-6';

function TextHit({ hit, back }: { hit: PassageHit; back: Back }) {
  const head = <><b className="font-semibold text-ink">{hit.title}</b>{hit.site && ` · ${hit.site}`}</>;
  return <Row to={`/source/${hit.sourceId}?from=${hit.start}&to=${hit.end}`} back={back} head={head}><p className={QUOTE}><Marked snippet={hit.snippet} /></p></Row>;
}

function NoteHit({ hit, back }: { hit: AnnotationHit; back: Back }) {
  const head = <><b className="font-semibold text-ink">{hit.title}</b>{[hit.site, hit.note.length === 0 ? shortName(hit.author) : ''].filter(Boolean).map((words) => ` · ${words}`)}</>;
  return (
    <Row to={`/source/${hit.sourceId}?at=${hit.annotationId}`} back={back} head={head}>
      <p className={QUOTE}><Sign kind={hit.kind} className="mr-1.5" /><span className="sr-only">{hit.kind.name}: </span><Marked snippet={hit.quote} /></p>
      {hit.note.length > 0 && <p className="mt-0.5 pl-6 text-[14.5px]"><b className="font-semibold">{shortName(hit.author)}</b> <Marked snippet={hit.note} /></p>}
      {hit.tags.length > 0 && <p className="pl-6 text-[13px] text-tide">{hit.tags.map((t) => `#${t}`).join(' ')}</p>}
    </Row>
  );
}

const Marked = ({ snippet }: { snippet: Snippet }) => <>{snippet.map((piece, i) => (piece.hit ? <mark key={i} className="bg-wash px-px font-semibold text-tide">{piece.text}</mark> : <span key={i}>{piece.text}</span>))}</>;
