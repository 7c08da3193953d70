import { useEffect, useRef, useState } from 'react';
import type { ClassDetail, Live } from '@avrelle/core/wire';
import { StepList } from '../../walkthrough/StepList';
import { Words } from '../../walkthrough/ToSay';
import { useRoom } from '../room-context';
import { GoAlong } from '../page/GoAlong';
import { ShowingPad, type Held } from '../page/ShowingPad';
import { ShownPage } from '../page/ShownPage';
import { Asking } from '../Asking';
import { AskNow } from './AskNow';
import { Foot } from './Foot';
import { Head } from './Head';
import { InkKeeper, type Keep } from './InkKeeper';
import { TellTop } from './TellTop';
import { TheirScreens } from './TheirScreens';
import { useSteps } from './use-steps';

interface Props {
  readonly of: ClassDetail;
  readonly live: Live;
}

const COLUMNS = 'grid min-h-0 max-[900px]:grid-cols-1 max-[900px]:grid-rows-[minmax(0,1fr)_auto]';
const WITH_STEPS = 'grid-cols-[250px_minmax(0,1fr)_316px] max-[1100px]:grid-cols-[minmax(0,1fr)_280px]';
const WITHOUT = 'grid-cols-[minmax(0,1fr)_316px] max-[1100px]:grid-cols-[minmax(0,1fr)_280px]';
const ASIDE = [
  'grid min-h-0 content-start gap-5 overflow-y-auto border-l border-rule px-6 py-5 max-[900px]:max-h-[30vh]',
  'max-[900px]:border-l-0 max-[900px]:border-t max-[900px]:px-4 max-[900px]:py-3',
].join(' ');

/** Showing to a class: the page, what to show next, what to say, and who follows. */
export function Present({ of: c, live }: Props) {
  const { place, top } = live;
  const steps = useSteps(c.id, live);
  const [held, hold] = useState<Held>('pointer');
  const [asking, setAsking] = useState(false);
  const keep = useRef<Keep>(null);
  const room = useRoom();
  // The page that is shown is another by then, or none: what was being asked about it is left.
  useEffect(() => setAsking(false), [place.sourceId]);
  const ask = (id: string): void => {
    setAsking(false);
    room.say({ type: 'ask', annotationId: id });
  };
  return (
    <main className="grid h-full min-h-0 grid-rows-[auto_1fr_auto]">
      <Head of={c} live={live} name={steps?.name} />
      <div className={`${COLUMNS} ${steps ? WITH_STEPS : WITHOUT}`}>
        {steps && <StepList steps={steps.all} at={steps.at} onGo={steps.go} />}
        <div className="min-h-0 min-w-0">
          <ShownPage live={live}>
            <GoAlong place={place} top={top} always={false} />
            <TellTop place={place} />
            {held !== 'hand' && <ShowingPad held={held} />}
            <InkKeeper ref={keep} classId={c.id} />
            {asking && <AskNow classId={c.id} place={place} onAsk={ask} onClose={() => setAsking(false)} />}
          </ShownPage>
        </div>
        <aside aria-label="To say, and their screens" className={ASIDE}>
          {steps?.step && <Words key={steps.step.annotationId}>{steps.step.words}</Words>}
          <Asking of={c} live={live} />
          <TheirScreens of={c} />
        </aside>
      </div>
      <Foot live={live} steps={steps} held={held} onHold={hold} onAsk={() => setAsking(true)} keep={keep} />
    </main>
  );
}
