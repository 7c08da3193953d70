import { useCallback, useEffect, useRef } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { ClassDetail, Walkthrough, WalkthroughStep } from '@avrelle/core/wire';
import { OfClass } from '../classes/ClassPart';
import { useKeyCommands } from '../commands/use-key-commands';
import { useWalkthrough } from '../data/walkthrough-queries';
import { ShownSource } from '../reader/ShownSource';
import { PageHeading } from '../ui/PageHeading';
import { State } from '../ui/State';
import { useAddressParams } from '../ui/use-address-params';
import { StepList } from './StepList';
import { ToSay } from './ToSay';

/** Walking through a walkthrough alone, step by step, by keys. */
export default function WalkPage() {
  return <OfClass>{(c) => <Loaded of={c} />}</OfClass>;
}

function Loaded({ of: c }: { readonly of: ClassDetail }) {
  const { walkthroughId = '' } = useParams();
  const found = useWalkthrough(c.id, walkthroughId);
  if (!found.data || found.data.steps.length === 0)
    return (
      <main className="p-8">
        {found.data ? (
          <>
            <PageHeading>{found.data.name}</PageHeading>
            <p className="mt-2 text-soft">
              It has no steps yet.{' '}
              <Link className="act" to={`/classes/${c.id}/walkthroughs/${walkthroughId}`}>
                Add some
              </Link>
            </p>
          </>
        ) : (
          <State of={found} />
        )}
      </main>
    );
  return <Walk of={c} walkthrough={found.data} />;
}

interface Props {
  readonly of: ClassDetail;
  readonly walkthrough: Walkthrough;
}

const HEAD =
  'flex flex-wrap items-baseline gap-x-4 border-b border-rule bg-wash px-6 py-2 text-[14px] max-[900px]:px-4';
/** Steps, page and what is said side by side; on less room the steps go, on a phone what is said stands below. */
const COLUMNS = [
  'grid min-h-0 grid-cols-[250px_minmax(0,1fr)_316px] max-[1100px]:grid-cols-[minmax(0,1fr)_280px]',
  'max-[900px]:grid-cols-1 max-[900px]:grid-rows-[minmax(0,1fr)_auto]',
].join(' ');
const ASIDE = [
  'min-h-0 overflow-y-auto border-l border-rule px-6 py-5 max-[900px]:max-h-[34vh] max-[900px]:border-l-0',
  'max-[900px]:border-t max-[900px]:px-4 max-[900px]:py-3',
].join(' ');

function Walk({ of: c, walkthrough }: Props) {
  const { steps, name } = walkthrough;
  const back = `/classes/${c.id}/walkthroughs/${walkthrough.id}`;
  const { at, go } = useStep(steps, back);
  const step = steps[at]!;
  return (
    <main className="grid h-full min-h-0 grid-rows-[auto_1fr_auto]">
      <header className={HEAD}>
        <PageHeading window={`${name}, step ${at + 1}`} className="font-ui text-[15px] text-tide">
          {name}
        </PageHeading>
        <span aria-live="polite">
          step {at + 1} of {steps.length}
        </span>
        <Link className="ml-auto font-semibold text-brick" to={back}>
          Leave
        </Link>
      </header>
      <div className={COLUMNS}>
        <StepList steps={steps} at={at} onGo={go} />
        <div className="min-h-0 min-w-0">
          <StepPage step={step} />
        </div>
        <aside aria-label="To say" className={ASIDE}>
          <ToSay step={step} />
        </aside>
      </div>
      <footer className="flex items-baseline gap-x-5 border-t border-strong px-6 py-2 text-[14px] max-[900px]:px-4">
        <button disabled={at === 0} className="text-soft disabled:text-faint" onClick={() => go(at - 1)}>
          ‹ Step {Math.max(1, at)}
        </button>
        <button className="press" disabled={at === steps.length - 1} onClick={() => go(at + 1)}>
          {at === steps.length - 1 ? 'Last step' : `Step ${at + 2} ›`}
        </button>
        <span className="ml-auto text-[13px] text-soft max-[900px]:hidden">
          ← and → go from step to step, Esc leaves
        </span>
      </footer>
    </main>
  );
}

/** Which step it is, as the address says, and going from one to another. */
function useStep(steps: readonly WalkthroughStep[], back: string) {
  const navigate = useNavigate();
  const [params, change] = useAddressParams();
  const last = steps.length - 1;
  const at = Math.min(last, Math.max(0, (Number(params.get('step')) || 1) - 1));
  // Keys come faster than the address changes.
  const aim = useRef(at);
  useEffect(() => {
    aim.current = at;
  }, [at]);
  const go = useCallback(
    (to: number): void => {
      aim.current = Math.min(last, Math.max(0, to));
      change({ step: String(aim.current + 1) });
    },
    [change, last],
  );
  const command = (name: string, keys: string, bindings: readonly string[], run: () => void) => ({
    ...{ name, keys, bindings, run },
  });
  useKeyCommands('Walkthrough', [
    command('Next step', '→', ['ArrowRight', 'PageDown'], () => go(aim.current + 1)),
    command('Step before', '←', ['ArrowLeft', 'PageUp'], () => go(aim.current - 1)),
    command('First step', 'Home', ['Home'], () => go(0)),
    command('Last step', 'End', ['End'], () => go(last)),
    command('Leave the walkthrough', 'Esc', ['Escape'], () => void navigate(back)),
  ]);
  return { at, go };
}

/** The page of a step, at its passage. */
function StepPage({ step: { note } }: { readonly step: WalkthroughStep }) {
  if (note) return <ShownSource key={note.source.id} sourceId={note.source.id} at={note.id} />;
  return (
    <p className="h-full bg-sheet p-8 text-soft">The note of this step was deleted, or is not for you any more.</p>
  );
}
