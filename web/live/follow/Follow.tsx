import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { ClassDetail, Live } from '@avrelle/core/wire';
import { useKeyCommands } from '../../commands/use-key-commands';
import { ProblemError } from '../../data/api';
import { useSource } from '../../data/queries';
import { PageHeading } from '../../ui/PageHeading';
import { WholeThread } from '../../walkthrough/ToSay';
import { Connection } from '../Connection';
import { Asking } from '../Asking';
import { Bar } from '../Bar';
import { GoAlong } from '../page/GoAlong';
import { ShownPage } from '../page/ShownPage';
import { useRoom, useRoomView } from '../room-context';
import { useStart } from '../use-start';
import { LookAround } from './LookAround';

interface Props {
  readonly of: ClassDetail;
  readonly live: Live;
}

const BESIDE = [
  'grid min-h-0 grid-cols-[minmax(0,1fr)_340px] max-[900px]:grid-cols-1',
  'max-[900px]:grid-rows-[minmax(0,1fr)_auto]',
].join(' ');
const ASIDE = [
  'grid min-h-0 content-start gap-5 overflow-y-auto border-l border-rule px-6 py-5 max-[900px]:max-h-[46vh]',
  'max-[900px]:border-l-0 max-[900px]:border-t max-[900px]:px-4 max-[900px]:py-3',
].join(' ');

/** Following what a teacher shows. */
export function Follow({ of: c, live }: Props) {
  const around = useRoomView((view) => view.around);
  const { place, top, blank, answers, questionId } = live;
  const { error } = useSource(place.sourceId);
  const isClosed = error instanceof ProblemError && error.problem.code === 'not_found';
  const beside = (answers && place.annotationId !== null) || questionId !== null;
  return (
    <main className="grid h-full min-h-0 grid-rows-[auto_1fr]">
      <Head of={c} live={live} />
      <div className={beside ? BESIDE : 'grid min-h-0'}>
        <div className="relative min-h-0 min-w-0">
          <div className="h-full" inert={blank} style={{ visibility: blank ? 'hidden' : 'visible' }}>
            {isClosed ? (
              <p className="p-8 text-soft">You cannot open this text yet: follow it on the board.</p>
            ) : (
              <ShownPage live={live}>
                {!around && <GoAlong place={place} top={top} always />}
                <LookAround />
              </ShownPage>
            )}
          </div>
          {blank && <Blank>{live.by.name} has covered the page: look up.</Blank>}
        </div>
        {beside && (
          <aside aria-label="Beside the page" className={ASIDE}>
            <Asking of={c} live={live} />
            {answers && place.annotationId !== null && (
              <WholeThread id={place.annotationId} sourceId={place.sourceId} />
            )}
          </aside>
        )}
      </div>
    </main>
  );
}

function Blank({ children }: { readonly children: ReactNode }) {
  return (
    <div role="status" className="absolute inset-0 grid place-items-center bg-paper p-8">
      <p className="max-w-[30ch] text-center [text-wrap:balance] font-read text-[22px] leading-[32px]">{children}</p>
    </div>
  );
}

/** Who shows, how one follows, and a hand to raise. */
function Head({ of: c, live: { by, step } }: Props) {
  const room = useRoom();
  const around = useRoomView((view) => view.around);
  const hand = useRoomView((view) => view.hand);
  const look = (on: boolean): void => room.say({ type: 'around', on, at: null });
  const raise = (): void => room.say({ type: 'hand', up: !hand });
  useKeyCommands('Live', [
    { name: 'Follow, or look around', keys: 'F', bindings: ['f'], run: () => look(!around) },
    { name: 'Raise your hand, or lower it', keys: 'R', bindings: ['r'], run: raise },
  ]);
  return (
    <Bar>
      <PageHeading window={`${by.name} shows, ${c.name}`} className="font-ui text-[15px] text-tide">
        {by.name} shows
      </PageHeading>
      <span aria-live="polite" className="max-[600px]:sr-only">
        {c.name}
        {step && ` · step ${step.at + 1} of ${step.of}`}
      </span>
      <Connection />
      <span role="status" className={around ? 'font-semibold text-brick' : 'text-soft'}>
        {around ? 'You look around; your teacher sees where' : 'You follow'}
      </span>
      <span className="ml-auto flex flex-wrap items-baseline gap-x-5 gap-y-1 pointer-coarse:items-center">
        <TakeOver of={c} />
        <button className={around ? 'press' : 'act'} title="F" onClick={() => look(!around)}>
          {around ? 'Come back' : 'Look around'}
        </button>
        <button aria-pressed={hand} title="R" className={hand ? 'font-semibold text-brick' : 'act'} onClick={raise}>
          {hand ? 'Hand is up' : 'Raise your hand'}
        </button>
        <Link className="text-soft hover:text-ink" to={`/classes/${c.id}`}>
          Leave
        </Link>
      </span>
    </Bar>
  );
}

/** For another teacher of the class. */
function TakeOver({ of: c }: { readonly of: ClassDetail }) {
  const teaches = useRoomView((view) => view.teaches);
  const live = useRoomView(({ shown }) => shown.live);
  const { start } = useStart(c.id);
  if (!teaches || !live) return null;
  const { place, walkthroughId, step } = live;
  return (
    <button className="act" onClick={() => start({ place, walkthroughId, step, takeOver: true })}>
      Take over
    </button>
  );
}
