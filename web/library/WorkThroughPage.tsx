import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { useQueryClient } from '@tanstack/react-query';
import {
  KIND_WORDS,
  STATE_WORDS,
  type FoundSource,
  type ReadingState,
  type SourceChange,
  type SourceChangesMade,
} from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { renew, useOutline, useSources } from '../data/queries';
import { tagsIn } from '../gather/tags-in';
import { MarkedText } from '../ui/MarkedText';
import { useMessages } from '../ui/Messages';
import { SuggestedTags } from './SuggestedTags';
import { changeSources } from './use-changing';
import { State } from '../ui/State';
import { count, day, minutes } from '../ui/when';
import { TagNames } from '../ui/TagNames';
import { PageHeading } from '../ui/PageHeading';
import { useLatest } from '../ui/use-latest';

const MOST = 200;
const STATE_KEYS: readonly (readonly [string, ReadingState, string])[] = [
  ['r', 'reading', 'Begin it'],
  ['s', 'set_aside', 'Set aside'],
  ['f', 'finished', 'Finished'],
];
/** What was done last, and which source comes next; `made` says how it is taken back. */
interface Step {
  readonly at: number;
  readonly change?: SourceChange;
  readonly made?: Promise<SourceChangesMade>;
}

/** As if a step had not been: its source comes again at once, however far one has gone on meanwhile. */
function withoutStep(steps: readonly Step[], step: Step): readonly Step[] {
  const place = steps.indexOf(step);
  const from = steps[place - 1]?.at ?? 0;
  if (place < 0) return steps;
  const left = steps.toSpliced(place, 1);
  return (left.at(-1)?.at ?? 0) === from ? left : [...left, { at: from }];
}

/** New arrivals one at a time, by single keys: does it still matter, and where does it belong? */
export default function WorkThroughPage() {
  const waiting = useSources({ q: 'is:to-read', sort: 'saved', limit: MOST, passages: 'yes' });
  const [queue, setQueue] = useState<readonly FoundSource[]>();
  const [total, setTotal] = useState(0);
  // What is decided on leaves the list at hand, not the one that is worked through.
  if (!queue && waiting.data) {
    setQueue(waiting.data.sources);
    setTotal(waiting.data.total);
  }
  if (!queue)
    return (
      <main>
        <State of={waiting} />
      </main>
    );
  return <Work queue={queue} total={total} />;
}

/** Single keys, but where one writes or chooses from a menu. */
function useKeys(keys: Readonly<Record<string, () => unknown>>): void {
  const latest = useLatest(keys);
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => {
      const isWriting = (event.target as HTMLElement).closest('input, select, textarea, [role=menu]');
      const act = latest.current[event.key];
      if (!act || isWriting || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      act();
    };
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  }, [latest]);
}

/** What is decided, step by step, with the way back; keys do the same as buttons. */
function useWork(queue: readonly FoundSource[]) {
  const [steps, setSteps] = useState<readonly Step[]>([]);
  const [asking, setAsking] = useState<'tags' | 'collection'>();
  const client = useQueryClient();
  const messages = useMessages();
  const at = steps.at(-1)?.at ?? 0;
  const source = queue[at];
  /** Goes on at once; what does not hold is told, and only that step comes back. */
  const go = (next: number, change?: Omit<SourceChange, 'id'>): void => {
    const step: Step = {
      at: next,
      ...(change && source
        ? { change: { id: source.id, ...change }, made: changeSources([{ id: source.id, ...change }]) }
        : {}),
    };
    setSteps((before) => [...before, step]);
    setAsking(undefined);
    step.made
      ?.catch((error: unknown) => {
        messages.warn(wordsOf(error));
        setSteps((before) => withoutStep(before, step));
      })
      .finally(() => void renew(client, 'outline'));
  };
  const undo = (): void => {
    const last = steps.at(-1);
    if (!last) return;
    setSteps(steps.slice(0, -1));
    last.made
      ?.then(async ({ undo: back }) => {
        if (back.length > 0) await changeSources(back);
      })
      .catch((error: unknown) => messages.warn(wordsOf(error)))
      .finally(() => void renew(client, 'outline'));
  };
  const tagsOf = (s: FoundSource): readonly string[] => [
    ...new Set([...s.tags, ...steps.flatMap(({ change }) => (change?.id === s.id ? (change.addTags ?? []) : []))]),
  ];
  /** Past the source at hand: to the next, or to where one was before an earlier one came back. */
  const onwards = Math.max(at + 1, ...steps.map((s) => s.at));
  const decide = {
    next: () => go(onwards),
    state: (state: ReadingState) => source && go(onwards, { state }),
    tag: (tags: readonly string[]) =>
      source && tags.length > 0 ? go(at, { addTags: [...tags] }) : setAsking(undefined),
    file: (id: string) => source && go(at, { putInto: { collectionId: id, section: -1 } }),
    remove: () => source?.owned && go(onwards, { deleted: true }),
  };
  useKeys({
    ...Object.fromEntries(STATE_KEYS.map(([key, state]) => [key, () => decide.state(state)])),
    k: decide.next,
    ArrowRight: decide.next,
    u: undo,
    ArrowLeft: undo,
    t: () => setAsking('tags'),
    p: () => setAsking('collection'),
    Delete: decide.remove,
  });
  return { at, source, steps, asking, setAsking, decide, undo, tagsOf };
}

function Work({ queue, total }: { queue: readonly FoundSource[]; total: number }) {
  const work = useWork(queue);
  const { at, source, steps, undo } = work;
  return (
    <main className="min-h-0 overflow-y-auto bg-sheet">
      <div className="flex items-baseline gap-5 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <PageHeading>Work through</PageHeading>
        <span aria-live="polite" className="text-[14px] text-soft">
          {source ? `${total - at} left` : 'done'}
        </span>
        {steps.length > 0 && (
          <button className="act text-[14px]" onClick={undo}>
            Undo (u)
          </button>
        )}
        <Link to="/library" className="act ml-auto text-[14px]">
          To the Library
        </Link>
      </div>
      {!source ? <Done worked={at} left={total - at} /> : <AtHand {...work} source={source} />}
    </main>
  );
}

type AtHandProps = ReturnType<typeof useWork> & { readonly source: FoundSource };

/** The source that is decided about. */
function AtHand({ source, asking, setAsking, decide, tagsOf }: AtHandProps) {
  return (
    <article aria-label={source.title} className="mx-auto max-w-[760px] px-[30px] py-8 max-[900px]:px-4">
      <p className="text-[14px] text-soft">
        {[
          ...new Set([source.author, source.site]),
          KIND_WORDS[source.kind],
          `kept ${day(source.keptAt)}`,
          minutes(source.minutes),
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      <h2 className="mt-1 text-[28px] leading-[34px]" dir="auto" lang={source.language || undefined}>
        {source.title}
      </h2>
      {(source.description || source.passage) && (
        <p className="mt-3 font-read text-[17px] leading-[26px]" dir="auto" lang={source.language || undefined}>
          {source.description || <MarkedText pieces={source.passage!.snippet} />}
        </p>
      )}
      {source.remark && (
        <p className="mt-3 border-l-2 border-strong pl-3 italic text-soft">You wrote: {source.remark}</p>
      )}
      <p className="mt-3 min-h-[22px] text-[15px] text-tide">
        <TagNames tags={tagsOf(source)} />
      </p>
      {asking === 'tags' && <AddTags source={source} decide={decide} setAsking={setAsking} tagsOf={tagsOf} />}
      {asking === 'collection' && <ChooseCollection decide={decide} setAsking={setAsking} />}
      <div role="group" aria-label="What becomes of it" className="mt-7 flex flex-wrap gap-2.5 text-[14.5px]">
        {action('k', 'Keep to read, next', decide.next)}
        {STATE_KEYS.map(([key, state, words]) => action(key, words, () => void decide.state(state)))}
        {action('t', 'Tag…', () => setAsking('tags'))}
        {action('p', 'Put into…', () => setAsking('collection'))}
        {source.owned && action('Del', 'Delete', () => void decide.remove(), true)}
      </div>
      <p className="mt-5 text-[14px]">
        <Link
          className="act"
          to={`/source/${source.id}`}
          state={{ back: { to: '/work-through', words: 'Work through' } }}
        >
          Open it
        </Link>
        <span className="ml-4 text-soft">Its state is “{STATE_WORDS[source.state].toLowerCase()}”.</span>
      </p>
    </article>
  );
}

type AskingProps = Pick<AtHandProps, 'source' | 'decide' | 'setAsking' | 'tagsOf'>;

function AddTags({ source, decide, setAsking, tagsOf }: AskingProps) {
  return (
    <>
      <form
        className="mt-2 flex max-w-[380px] gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          decide.tag(tagsIn(String(new FormData(e.currentTarget).get('tags'))));
        }}
      >
        <input
          name="tags"
          autoFocus
          aria-label="Tags to add"
          placeholder="#essay #accretion"
          className="field"
          onKeyDown={(e) => {
            if (e.key === 'Escape') setAsking(undefined);
          }}
        />
        <button className="act">Add</button>
      </form>
      <div className="mt-2">
        <SuggestedTags sourceId={source.id} without={tagsOf(source)} onAdd={(tag) => decide.tag([tag])} />
      </div>
    </>
  );
}

function ChooseCollection({ decide, setAsking }: Pick<AskingProps, 'decide' | 'setAsking'>) {
  const collections = useOutline().data?.collections.filter((c) => c.owned || c.may === 'add') ?? [];
  return (
    <ul
      className="mt-2 flex flex-wrap gap-3 text-[14px]"
      onKeyDown={(e) => {
        if (e.key === 'Escape') setAsking(undefined);
      }}
    >
      {collections.map((c, n) => (
        <li key={c.id}>
          <button autoFocus={n === 0} className="act" onClick={() => decide.file(c.id)}>
            {c.name}
          </button>
        </li>
      ))}
      {collections.length === 0 && (
        <li className="text-soft">There is no collection yet: make one in the Library, with + beside “Collections”.</li>
      )}
    </ul>
  );
}

const action = (key: string, words: string, run: () => void, bad = false) => (
  <button
    key={key}
    onClick={run}
    className={`flex items-baseline gap-2 border border-strong px-3 py-1.5 hover:bg-wash ${bad ? 'text-brick' : ''}`}
  >
    <kbd className="text-[12px] text-faint">{key}</kbd>
    {words}
  </button>
);

function Done({ worked, left }: { worked: number; left: number }) {
  return <p className="max-w-[56ch] p-8 text-soft">{doneWords(worked, left)}</p>;
}

function doneWords(worked: number, left: number): string {
  if (left > 0) return `${count(worked, 'source')} looked at; ${left} more wait. Come back to this page for them.`;
  if (worked > 0) return `All ${worked} looked at. What you begin stands on the Desk.`;
  return 'Nothing is left to read. New pages that you keep appear here.';
}
