import { useCallback, useEffect, useMemo, useRef } from 'react';
import { useAllFound, useFound, useSources } from '../data/queries';
import { QueryField } from '../library/QueryField';
import { StillShown } from '../library/StillShown';
import { useReadable } from '../library/use-readable';
import PlainForm from '../library/PlainForm';
import { SourceRow } from '../ui/SourceRow';
import { State } from '../ui/State';
import { DidYouMean } from '../ui/DidYouMean';
import { count } from '../ui/when';
import { AnnotationList } from './AnnotationList';
import { groupingAsked, GROUPINGS, type Grouping } from './grouped';
import { useAddressParams } from '../ui/use-address-params';
import { PageHeading } from '../ui/PageHeading';

const PART = 60;
/** How far ahead more is fetched. */
const AHEAD = '1200px';

type Listed = 'annotations' | 'sources';

/** What is asked, as it stands in the address. */
function useAsked() {
  const [params, to] = useAddressParams();
  const q = params.get('q') ?? '';
  const of: Listed = params.get('of') === 'sources' ? 'sources' : 'annotations';
  const limit = Number(params.get('limit')) || PART;
  const by = GROUPINGS.find((g) => g === params.get('by')) ?? 'none';
  const back = { to: `/find?${params}`, words: q ? `Find: ${q}` : 'Find' };
  return { q, of, limit, by, to, back };
}

/** What is found of both sorts: all of the one that is listed, of the other how many there are. */
function useFinding(asked: string, of: Listed, { limit, by }: { limit: number; by: Grouping }) {
  const parts = useAllFound({ q: asked, by: groupingAsked(by) }, of === 'annotations');
  const first = useFound({ q: asked, limit: 1 }, of !== 'annotations');
  const sources = useSources({ q: asked, limit: of === 'sources' ? Math.min(200, limit) : 1, passages: 'yes' });
  const found = of === 'annotations' ? parts.data?.pages[0] : first.data;
  return { parts, found, sources };
}

type Asked = ReturnType<typeof useAsked>;
type Finding = ReturnType<typeof useFinding>;
interface PanelProps extends Finding {
  readonly asked: Asked;
  onQuery(q: string): void;
}

/** Annotations across all sources, and the sources themselves, each with what was looked for in its context. */
export default function FindPage() {
  const asked = useAsked();
  const { q, of, to } = asked;
  const { asked: readable, faulty } = useReadable(q);
  const finding = useFinding(readable, of, asked);
  const onQuery = (query: string): void => to({ q: query || undefined, limit: undefined });
  const Panel = of === 'annotations' ? Marks : Sources;
  return (
    <main className="flex min-h-0 flex-col overflow-y-auto bg-sheet">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <PageHeading>Find</PageHeading>
        <QueryField
          value={q}
          onChange={onQuery}
          label="What is looked for"
          placeholder='words, "a phrase", note:why, kind:question, by:ines …'
        />
        <PlainForm q={readable} onQuery={onQuery} />
        {faulty && (
          <span className="text-[13.5px]">
            <StillShown q={q} asked={readable} onMend={onQuery} />
          </span>
        )}
        <Tabs
          of={of}
          totals={{ annotations: finding.found?.total, sources: finding.sources.data?.total }}
          onChoose={(name) => to({ of: name === 'annotations' ? undefined : name, limit: undefined })}
        />
      </div>
      <div id="found" role="tabpanel" aria-labelledby={`tab-${of}`} className="flex min-h-0 flex-1 flex-col">
        <Panel {...finding} asked={asked} onQuery={onQuery} />
      </div>
    </main>
  );
}

const LISTED = [
  ['annotations', 'Marks and notes'],
  ['sources', 'Sources'],
] as const;

interface TabsProps {
  readonly of: Listed;
  readonly totals: Readonly<Record<Listed, number | undefined>>;
  onChoose(of: Listed): void;
}

function Tabs({ of, totals, onChoose }: TabsProps) {
  return (
    <div role="tablist" aria-label="What is listed" className="ml-auto flex gap-4 text-[14px] max-[900px]:ml-0">
      {LISTED.map(([name, words]) => (
        <button
          key={name}
          role="tab"
          id={`tab-${name}`}
          aria-controls="found"
          aria-selected={of === name}
          onClick={() => onChoose(name)}
          className={of === name ? 'border-b-2 border-tide font-semibold' : 'text-soft hover:text-ink'}
        >
          {words} <span className="font-normal text-faint">{totals[name]?.toLocaleString('en')}</span>
        </button>
      ))}
    </div>
  );
}

function Marks({ parts, found, sources, asked, onQuery }: PanelProps) {
  const { q, by, to, back } = asked;
  const hits = useMemo(() => parts.data?.pages.flatMap((p) => p.annotations) ?? [], [parts.data]);
  const groups = useMemo(() => parts.data?.pages.flatMap((p) => p.groups) ?? [], [parts.data]);
  return (
    <State of={parts}>
      {found?.total === 0 && (
        <Nothing
          q={q}
          meant={found.meant}
          onMeant={onQuery}
          other={sources.data?.total ?? 0}
          words="source"
          onOther={() => to({ of: 'sources' })}
        />
      )}
      {found && found.total > 0 && (
        <AnnotationList
          key={q}
          hits={hits}
          groups={groups}
          by={by}
          shownBy={found.by ?? 'none'}
          onBy={(g) => to({ by: g === 'none' ? undefined : g })}
          back={back}
        />
      )}
      {parts.hasNextPage && (
        <Onward
          busy={parts.isFetchingNextPage}
          shown={hits.length}
          total={found?.listed ?? 0}
          onNear={() => void parts.fetchNextPage()}
        />
      )}
    </State>
  );
}

function Sources({ found, sources, asked, onQuery }: PanelProps) {
  const { q, limit, to, back } = asked;
  const { sources: rows = [], total = 0, meant } = sources.data ?? {};
  return (
    <State of={sources}>
      {total === 0 ? (
        <Nothing
          q={q}
          meant={meant}
          onMeant={onQuery}
          other={found?.total ?? 0}
          words="mark or note"
          onOther={() => to({ of: undefined })}
        />
      ) : (
        <ol aria-label="Sources">
          {rows.map((source, n) => (
            <SourceRow key={source.id} source={source} number={n + 1} back={back} />
          ))}
        </ol>
      )}
      <More shown={rows.length} total={total} onMore={() => to({ limit: String(limit + PART) })} />
    </State>
  );
}

function More({ shown, total, onMore }: { shown: number; total: number; onMore: () => void }) {
  if (shown >= total) return null;
  if (shown >= 200)
    return (
      <p className="px-[30px] py-4 text-[14px] text-soft max-[900px]:px-4">
        The first {shown} of {total.toLocaleString('en')}. More words, or a tag, find fewer.
      </p>
    );
  return (
    <p className="px-[30px] py-4 text-[14px] max-[900px]:px-4">
      <button className="act" onClick={onMore}>
        Show more of {total.toLocaleString('en')}
      </button>
    </p>
  );
}

/** Fetches more once its place comes near; pressed, at once. */
function Onward({ busy, shown, total, onNear }: { busy: boolean; shown: number; total: number; onNear: () => void }) {
  const near = useRef(onNear);
  useEffect(() => {
    near.current = onNear;
  });
  const hold = useCallback((node: HTMLElement | null) => {
    if (!node) return;
    const observer = new IntersectionObserver(
      ([entry]) => {
        if (entry?.isIntersecting) near.current();
      },
      { root: node.closest('main'), rootMargin: AHEAD },
    );
    observer.observe(node);
    return () => observer.disconnect();
  }, []);
  return (
    <p ref={hold} key={shown} className="px-[30px] py-4 text-[14px] text-soft max-[900px]:px-4">
      <button className="act" disabled={busy} onClick={onNear}>
        {busy ? 'Loading…' : 'Show more'}
      </button>{' '}
      {shown.toLocaleString('en')} of {total.toLocaleString('en')}
    </p>
  );
}

function Nothing({
  q,
  meant,
  onMeant,
  other,
  words,
  onOther,
}: {
  q: string;
  meant: string | undefined;
  onMeant: (q: string) => void;
  other: number;
  words: string;
  onOther: () => void;
}) {
  if (!q)
    return (
      <p className="max-w-[60ch] p-8 text-soft">
        What you and your classes mark and write is listed here, from all sources. Open one, select words and press a
        digit: it is the first.
      </p>
    );
  return (
    <p className="max-w-[60ch] p-8 text-soft">
      <DidYouMean meant={meant} onMeant={onMeant} />
      Nothing you can see holds that.{' '}
      {other > 0 ? (
        <button className="act" onClick={onOther}>
          {count(other, words, words === 'source' ? 'sources' : 'marks and notes')} {other === 1 ? 'does' : 'do'}.
        </button>
      ) : (
        'Try fewer words, or only their beginning.'
      )}
    </p>
  );
}
