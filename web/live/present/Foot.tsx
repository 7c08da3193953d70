import type { RefObject } from 'react';
import type { Live } from '@avrelle/core/wire';
import { useKeyCommands } from '../../commands/use-key-commands';
import { useQuestionsOn } from '../../data/question-queries';
import { HELD, type Held } from '../page/ShowingPad';
import { useRoom, useRoomView } from '../room-context';
import { ONE_LINE } from '../Bar';
import type { Keep } from './InkKeeper';
import type { Steps } from './use-steps';

interface Props {
  readonly live: Live;
  readonly steps: Steps | undefined;
  readonly held: Held;
  onHold(held: Held): void;
  /** Asks something that is not written yet. */
  onAsk(): void;
  readonly keep: RefObject<Keep | null>;
}

const HELD_WORDS: Readonly<Record<Held, string>> = { hand: 'Hand', pointer: 'Pointer', pen: 'Pen', broad: 'Broad pen' };
const FOOT = [
  'flex flex-wrap items-baseline gap-x-5 gap-y-1.5 border-t border-strong px-6 py-2 text-[14px]',
  'max-[900px]:px-4 pointer-coarse:items-center',
].join(' ');

/** From step to step; what the hand holds; and what the class is shown or asked. */
export function Foot({ live, steps, held, onHold, onAsk, keep }: Props) {
  const room = useRoom();
  const hasInk = useRoomView(({ shown }) => shown.ink.length > 0);
  const { classId, place, answers, questionId, blank } = live;
  // A step that asks this class already is asked; else one writes what to ask.
  const question = useQuestionsOn(place.sourceId).data?.find(({ id }) => id === place.annotationId);
  const asks = question?.classes.some(({ id }) => id === classId) ?? false;
  const collect = (): void => {
    if (questionId !== null) room.say({ type: 'ask', annotationId: null });
    else if (asks) room.say({ type: 'ask', annotationId: place.annotationId });
    else onAsk();
  };
  const showAnswers = (): void => room.say({ type: 'answers', on: !answers });
  const wipe = (): void => room.say({ type: 'wipe' });
  const command = (name: string, key: string, bindings: readonly string[], run: () => void) => ({
    ...{ name, keys: key, bindings, run },
  });
  useKeyCommands('Live', [
    command('Next step', '→', ['ArrowRight', 'PageDown'], () => steps?.go(steps.at + 1)),
    command('Step before', '←', ['ArrowLeft', 'PageUp'], () => steps?.go(steps.at - 1)),
    command('Pointer', 'P', ['p'], () => onHold('pointer')),
    command('Pen', 'D', ['d'], () => onHold('pen')),
    command('Put the pointer away', 'H', ['h'], () => onHold('hand')),
    command('Wipe what was drawn', 'W', ['w'], wipe),
    command('Show or hide answers', 'A', ['a'], showAnswers),
    command('Blank the screens, or not', 'B', ['b'], () => room.say({ type: 'blank', on: !blank })),
  ]);
  return (
    <footer className={`${FOOT} ${ONE_LINE}`}>
      {steps && <StepButtons of={steps} />}
      <span role="group" aria-label="What you hold" className="flex flex-wrap items-baseline gap-x-5">
        {HELD.map((one) => (
          <button
            key={one}
            aria-pressed={held === one}
            className={held === one ? 'font-bold' : 'text-soft hover:text-ink'}
            onClick={() => onHold(one)}
          >
            {HELD_WORDS[one]}
          </button>
        ))}
        <button className="text-soft hover:text-ink disabled:text-faint" disabled={!hasInk} onClick={wipe}>
          Wipe
        </button>
      </span>
      <span className="ml-auto flex flex-wrap items-baseline gap-x-5 gap-y-1.5 text-soft">
        {place.annotationId !== null && (
          <button
            aria-pressed={answers}
            className={answers ? 'font-semibold text-tide' : 'hover:text-ink'}
            onClick={showAnswers}
          >
            {answers ? 'Hide answers' : 'Show answers'}
          </button>
        )}
        <button className={questionId ? 'font-semibold text-tide' : 'hover:text-ink'} onClick={collect}>
          {questionId ? 'Collect no more answers' : 'Collect one answer from each'}
        </button>
        <button className="hover:text-ink disabled:text-faint" disabled={!hasInk} onClick={() => keep.current?.()}>
          Keep my ink
        </button>
      </span>
    </footer>
  );
}

function StepButtons({ of: { all, at, go } }: { readonly of: Steps }) {
  const isLast = at === all.length - 1;
  return (
    <>
      <button disabled={at <= 0} className="text-soft disabled:text-faint" onClick={() => go(at - 1)}>
        ‹ Step {Math.max(1, at)}
      </button>
      <button className="press" disabled={isLast} onClick={() => go(at + 1)}>
        {isLast ? 'Last step' : `Step ${at + 2} ›`}
      </button>
    </>
  );
}
