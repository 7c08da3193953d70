import { useMemo } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { Annotation, ClassRow, Comparison, SourceDetail } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { useAnnotations, useChanges, useSource, useVersions } from '../data/queries';
import { useChosenLegend } from '../reader/session/legend';
import { useAnnotationWriter } from '../reader/session/use-annotation-writer';
import { useAccept } from '../reader/session/use-placing';
import { State } from '../ui/State';
import { count, day } from '../ui/when';
import { Outcomes } from './Outcomes';
import { paragraphs, wordsOfKind, type Section } from './paragraphs';
import { PageHeading } from '../ui/PageHeading';

/** What changed between two versions of a source, and what became of the annotations. */
export default function ChangesPage() {
  const { id = '' } = useParams();
  const [params] = useSearchParams();
  const source = useSource(id);
  const changes = useChanges(id, params.get('from') ?? '', params.get('to') ?? '');
  const compared = changes.data;
  const former = useAnnotations(id, compared?.from.number);
  const present = useAnnotations(id, numberUnlessNewest(compared, source.data));
  const waiting = [source, changes, former, present].find((q) => !q.data);
  if (waiting || !source.data || !compared || !former.data || !present.data)
    return (
      <main>
        <State of={waiting ?? source} />
      </main>
    );
  return <Changes source={source.data} comparison={compared} former={former.data} present={present.data} />;
}

/** Of the newest version annotations are asked for without its number, as the reading view asks for them. */
function numberUnlessNewest(compared: Comparison | undefined, source: SourceDetail | undefined): number | undefined {
  if (!compared || !source || compared.to.number === source.newest) return undefined;
  return compared.to.number;
}

const NOBODY: readonly string[] = [];
const NO_CLASSES: readonly ClassRow[] = [];

interface Props {
  readonly source: SourceDetail;
  readonly comparison: Comparison;
  readonly former: readonly Annotation[];
  readonly present: readonly Annotation[];
}

function Changes({ source, comparison, former, present }: Props) {
  const { from, to, before, after } = comparison;
  const me = useMe();
  const navigate = useNavigate();
  const key = useChosenLegend(NOBODY, true);
  const marks = useAnnotationWriter(source, undefined, me, { legend: key, classes: NO_CLASSES });
  const sections = useMemo(() => paragraphs(comparison), [comparison]);
  const accept = useAccept(marks);
  return (
    <main className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr]">
      <header className="flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b border-rule px-[30px] py-3 max-[900px]:px-4">
        <Link className="reach text-[14px] text-soft hover:text-ink" to={`/source/${source.id}?version=${to.number}`}>
          ‹ Read it
        </Link>
        <PageHeading
          window={`What changed: ${source.title}`}
          className="min-w-0 flex-1 basis-[200px] truncate text-[23px]"
        >
          What changed in <i className="font-normal">{source.title}</i>
        </PageHeading>
        <VersionPair id={source.id} comparison={comparison} />
      </header>
      <div className="grid min-h-0 grid-cols-[1fr_430px] max-[1000px]:block max-[1000px]:overflow-y-auto">
        <section
          aria-label="The text"
          className="min-h-0 overflow-y-auto bg-sheet px-[30px] py-6 max-[1000px]:overflow-visible max-[900px]:px-4"
        >
          <p className="mb-5 text-[14px] text-soft">
            {count(wordsOfKind(comparison, 'removed'), 'word was', 'words were')} <del className="gone">removed</del>{' '}
            and {count(wordsOfKind(comparison, 'added'), 'word', 'words')} <ins className="come">added</ins> between{' '}
            {day(from.keptAt)} and {day(to.keptAt)}.
          </p>
          <div className="mx-auto max-w-[64ch] font-read text-[17px] leading-[1.62]">
            {sections.map((section, n) => (
              <Passage key={n} section={section} />
            ))}
          </div>
        </section>
        <Outcomes
          present={present}
          former={former}
          before={before}
          after={after}
          me={me.id}
          newest={to.number === source.newest}
          onAccept={accept}
          onChoose={(a) => void navigate(`/source/${source.id}?version=${to.number}&place=${a.id}`)}
          sourceId={source.id}
          version={to.number}
        />
      </div>
    </main>
  );
}

const SHOWN_AS = {
  kept: { Tag: 'span', className: undefined },
  removed: { Tag: 'del', className: 'gone' },
  added: { Tag: 'ins', className: 'come' },
} as const;

function Passage({ section }: { section: Section }) {
  if (section.changed) {
    return (
      <p className="my-3">
        {section.line.map(({ kind, text }, n) => {
          const { Tag, className } = SHOWN_AS[kind];
          return (
            <Tag key={n} className={className}>
              {text}
            </Tag>
          );
        })}
      </p>
    );
  }
  const letters = section.lines.reduce((sum, line) => sum + line.length, 0);
  if (section.lines.length === 1 && letters < 90) return <p className="my-3 text-soft">{section.lines[0]}</p>;
  return (
    <details className="my-3">
      <summary className="cursor-pointer border-y border-rule py-1 text-center font-ui text-[13px] text-soft">
        {count(section.lines.length, 'paragraph', 'paragraphs')} as before
      </summary>
      {section.lines.map((line, n) => (
        <p key={n} className="my-3 text-soft">
          {line}
        </p>
      ))}
    </details>
  );
}

/** Which two versions are compared; any two may be. */
function VersionPair({ id, comparison: { from, to } }: { id: string; comparison: Comparison }) {
  const versions = useVersions(id).data ?? [];
  const navigate = useNavigate();
  const go = (a: number, b: number): void =>
    void navigate(`/source/${id}/changes?from=${a}&to=${b}`, { replace: true });
  const choice = (label: string, chosen: number, other: number, onChoose: (n: number) => void) => (
    <label className="flex min-w-0 items-baseline gap-1.5">
      {label}
      <select className="field !w-auto min-w-0" value={chosen} onChange={(e) => onChoose(Number(e.target.value))}>
        {versions
          .filter((v) => v.number !== other)
          .map((v) => (
            <option key={v.id} value={v.number}>
              version {v.number}, {day(v.keptAt)}
            </option>
          ))}
      </select>
    </label>
  );
  return (
    <div className="flex min-w-0 flex-wrap gap-x-4 gap-y-1 text-[14px] text-soft">
      {choice('from', from.number, to.number, (n) => go(n, to.number))}
      {choice('to', to.number, from.number, (n) => go(from.number, n))}
    </div>
  );
}
