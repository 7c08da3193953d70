import { useCallback, useEffect, useMemo, useRef } from 'react';
import { useSearchParams } from 'react-router';
import { useAllFound, useFound, useSources } from '../data/queries';
import { QueryField } from '../library/QueryField';
import { StillShown } from '../library/StillShown';
import { useReadable } from '../library/use-readable';
import PlainForm from '../library/PlainForm';
import { SourceRow } from '../ui/SourceRow';
import { State } from '../ui/State';
import { count } from '../ui/when';
import { AnnotationList } from './AnnotationList';
import { groupingAsked, GROUPINGS } from './grouped';
import { PageHeading } from '../ui/PageHeading';

const PART = 60;
/** How far ahead more is fetched. */
const AHEAD = '1200px';

/** Annotations across all sources, and the sources themselves, each with the words that were looked for in their context. */
export default function FindPage() {
  const [params, setParams] = useSearchParams();
  const q = params.get('q') ?? '';
  const of = params.get('of') === 'sources' ? 'sources' : 'annotations';
  const limit = Number(params.get('limit')) || PART;
  const by = GROUPINGS.find((g) => g === params.get('by')) ?? 'none';
  const { asked, faulty } = useReadable(q);
  const parts = useAllFound({ q: asked, by: groupingAsked(by) }, of === 'annotations');
  const first = useFound({ q: asked, limit: 1 }, of !== 'annotations');
  const found = of === 'annotations' ? parts.data?.pages[0] : first.data;
  const hits = useMemo(() => parts.data?.pages.flatMap((p) => p.annotations) ?? [], [parts.data]);
  const groups = useMemo(() => parts.data?.pages.flatMap((p) => p.groups) ?? [], [parts.data]);
  const sources = useSources({ q: asked, limit: of === 'sources' ? Math.min(200, limit) : 1, passages: 'yes' });
  const to = (change: Record<string, string | undefined>): void =>
    setParams(
      (before) => {
        const after = new URLSearchParams(before);
        for (const [key, value] of Object.entries(change)) {
          if (value) after.set(key, value);
          else after.delete(key);
        }
        return after;
      },
      { replace: true },
    );
  const back = { to: `/find?${params}`, words: q ? `Find: ${q}` : 'Find' };
  const onQuery = (query: string): void => to({ q: query || undefined, limit: undefined });
  const tab = (name: typeof of, words: string, total: number | undefined) => (
    <button
      role="tab"
      id={`tab-${name}`}
      aria-controls="found"
      aria-selected={of === name}
      onClick={() => to({ of: name === 'annotations' ? undefined : name, limit: undefined })}
      className={of === name ? 'border-b-2 border-tide font-semibold' : 'text-soft hover:text-ink'}
    >
      {words} {total !== undefined && <span className="font-normal text-faint">{total.toLocaleString('en')}</span>}
    </button>
  );
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
        <PlainForm q={asked} onQuery={onQuery} />
        {faulty && (
          <span className="text-[13.5px]">
            <StillShown q={q} asked={asked} onMend={onQuery} />
          </span>
        )}
        <div role="tablist" aria-label="What is listed" className="ml-auto flex gap-4 text-[14px] max-[900px]:ml-0">
          {tab('annotations', 'Marks and notes', found?.total)}
          {tab('sources', 'Sources', sources.data?.total)}
        </div>
      </div>
      <div id="found" role="tabpanel" aria-labelledby={`tab-${of}`} className="flex min-h-0 flex-1 flex-col">
        {of === 'annotations' ? (
          <State of={parts}>
            {found?.total === 0 ? (
              <Nothing
                q={q}
                meant={found.meant}
                onMeant={onQuery}
                other={sources.data?.total ?? 0}
                words="source"
                onOther={() => to({ of: 'sources' })}
              />
            ) : (
              found && (
                <AnnotationList
                  key={q}
                  hits={hits}
                  groups={groups}
                  by={by}
                  shownBy={found.by ?? 'none'}
                  onBy={(g) => to({ by: g === 'none' ? undefined : g })}
                  back={back}
                />
              )
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
        ) : (
          <State of={sources}>
            {sources.data?.total === 0 ? (
              <Nothing
                q={q}
                meant={sources.data.meant}
                onMeant={onQuery}
                other={found?.total ?? 0}
                words="mark or note"
                onOther={() => to({ of: undefined })}
              />
            ) : (
              <ol aria-label="Sources">
                {sources.data?.sources.map((source, n) => (
                  <SourceRow key={source.id} source={source} number={n + 1} back={back} />
                ))}
              </ol>
            )}
            <More
              shown={sources.data?.sources.length ?? 0}
              total={sources.data?.total ?? 0}
              onMore={() => to({ limit: String(limit + PART) })}
            />
          </State>
        )}
      </div>
    </main>
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
      {meant !== undefined && (
        <>
          Did you mean{' '}
          <button className="act" onClick={() => onMeant(meant)}>
            {meant}
          </button>
          ?{' '}
        </>
      )}
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
