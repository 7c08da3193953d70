import { useState } from 'react';
import type { ClassDetail, Follower, Live } from '@avrelle/core/wire';
import { useWrite } from '../../data/use-write';
import { DialogFrame } from '../../ui/DialogFrame';
import { PageHeading } from '../../ui/PageHeading';
import { Bar } from '../Bar';
import { Choose } from '../Choose';
import { Connection } from '../Connection';
import { Elapsed } from '../Elapsed';
import { useRoom, useRoomView } from '../room-context';

interface Props {
  readonly of: ClassDetail;
  readonly live: Live;
  /** Of the walkthrough that is shown. */
  readonly name: string | undefined;
}

/** To whom what is shown, since when, and how many follow. */
export function Head({ of: c, live, name }: Props) {
  const room = useRoom();
  const end = useWrite('DELETE /api/classes/:id/live', 'live');
  const [choosing, setChoosing] = useState(false);
  const { step, blank } = live;
  return (
    <Bar isOneLine>
      <PageHeading window={`Showing to ${c.name}`} className="font-ui text-[15px] text-tide">
        Showing to {c.name}
      </PageHeading>
      <span>
        {name && `“${name}” · `}
        {step && `step ${step.at + 1} of ${step.of} · `}
        <Elapsed since={live.startedAt} />
      </span>
      <Connection />
      <span className="ml-auto flex flex-wrap items-baseline gap-x-5 gap-y-1 pointer-coarse:items-center">
        <Count />
        <button className="hover:text-tide" onClick={() => setChoosing(true)}>
          Show something else
        </button>
        <button
          aria-pressed={blank}
          className={blank ? 'font-semibold text-brick' : 'hover:text-tide'}
          onClick={() => room.say({ type: 'blank', on: !blank })}
        >
          {blank ? 'Show the page again' : 'Blank the screens'}
        </button>
        <button className="font-semibold text-brick" onClick={() => end.run({ params: { id: c.id } })}>
          End
        </button>
      </span>
      {choosing && (
        <DialogFrame title="Show something else" width={640} onClose={() => setChoosing(false)}>
          <Choose of={c} onChosen={() => setChoosing(false)} />
        </DialogFrame>
      )}
    </Bar>
  );
}

const follows = ({ around, lostAt }: Follower): boolean => !around && lostAt === null;

function Count() {
  const people = useRoomView((view) => view.people);
  const here = people.filter(({ lostAt }) => lostAt === null);
  const around = here.filter((one) => one.around).length;
  const hands = here.filter((one) => one.hand).length;
  const words = [
    `${here.filter(follows).length} follow`,
    ...(around > 0 ? [`${around} ${around === 1 ? 'looks' : 'look'} around`] : []),
    ...(people.length > here.length ? [`${people.length - here.length} lost`] : []),
  ];
  return (
    <span role="status">
      {words.join(', ')}
      {hands > 0 && <b className="ml-3 font-semibold text-brick">{hands === 1 ? '1 hand' : `${hands} hands`} up</b>}
    </span>
  );
}
