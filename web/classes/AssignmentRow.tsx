import { Link } from 'react-router';
import { leftOf } from '@avrelle/core/class';
import type { Assignment } from '@avrelle/core/wire';
import { Strand } from '../ui/Strand';
import { count, dayInTwo, dueAt, timeOf } from '../ui/when';
import { Changed } from './Changed';
import { Show } from './Show';
import { aboutSet, isPast } from './words';

interface Props {
  readonly set: Assignment;
  readonly teaches: boolean;
  readonly back: { readonly to: string; readonly words: string };
}

/** A reading that is set: when it is due, what is asked for, where it is marked, and how far one is with it. */
export function AssignmentRow({ set, teaches, back }: Props) {
  const { source, class: c } = set;
  return (
    <li className="grid grid-cols-[88px_1fr_190px_156px] gap-x-5 border-b border-rule px-[30px] py-3.5 max-[1100px]:grid-cols-[88px_1fr_140px] max-[900px]:grid-cols-[1fr_auto] max-[900px]:px-4">
      <When set={set} />
      <div className="min-w-0 max-[900px]:[grid-column:1/-1]">
        <h3 className="text-[18px] leading-[23px]">
          <Link to={`/source/${source.id}`} state={{ back }} dir="auto" lang={source.language || undefined}>
            {source.title}
          </Link>
        </h3>
        <p className="mt-px text-[13.5px] text-soft">{aboutSet(set)}</p>
        <p className="text-[13.5px] text-soft empty:hidden">
          <Changed set={set} />
        </p>
        <p className="mt-1 flex flex-wrap gap-x-4 text-[13.5px]">
          <Link className="act" to={`/classes/${c.id}/readings/${source.id}`}>
            {teaches ? 'How they read it' : 'How I read it'}
          </Link>
          {teaches && (
            <>
              <Link className="act" to={`/classes/${c.id}/set/${source.id}`}>
                Change<span className="sr-only"> what is set for {source.title}</span>
              </Link>
              <Show set={set} />
            </>
          )}
        </p>
      </div>
      <div className="pt-1 max-[1100px]:hidden">
        <Strand strand={source.strand} />
      </div>
      <div className="text-right text-[13.5px] text-soft max-[900px]:[grid-column:2] max-[900px]:[grid-row:1]">
        {set.progress ? <HowMany set={set} progress={set.progress} /> : <Mine set={set} />}
      </div>
    </li>
  );
}

function When({ set: { myDueAt, opensAt, isOpen } }: Pick<Props, 'set'>) {
  if (!isOpen && opensAt)
    return (
      <p className="text-[13.5px] text-soft">
        <b className="block font-read text-[16px] font-semibold text-ink">{dayInTwo(opensAt)[0]}</b>
        opens {timeOf(opensAt)}
      </p>
    );
  if (!myDueAt) return <p className="pt-1 text-[13.5px] text-soft">never due</p>;
  const [day, month] = dayInTwo(myDueAt);
  const isToday = dueAt(myDueAt).startsWith('today');
  const late = isPast(myDueAt);
  return (
    <p className="text-[13.5px] text-soft">
      <b className={`block font-read text-[16px] font-semibold ${isToday && !late ? 'text-brick' : 'text-ink'}`}>
        {isToday ? 'Today' : day}
      </b>
      {isToday ? `${late ? 'was due' : 'due'} ${timeOf(myDueAt)}` : month}
    </p>
  );
}

function HowMany({
  set: { isOpen, opensAt, published },
  progress: { students, done, begun, opened, marks, answers },
}: Pick<Props, 'set'> & { readonly progress: NonNullable<Assignment['progress']> }) {
  if (!isOpen && opensAt)
    return (
      <>
        <b className="block font-semibold text-ink">not open yet</b>
        opens {dueAt(opensAt)}
      </>
    );
  if (students === 0) return <b className="block font-semibold text-ink">no students yet</b>;
  const unopened = students - opened;
  return (
    <>
      <b className="block font-semibold text-ink">
        {done} of {students} {done === 1 ? 'has' : 'have'} done all
      </b>
      <span className="block">
        {[
          begun > done && `${begun - done} on it`,
          unopened > 0 && `${unopened} not opened${published.lookedSince ? ' again' : ''}`,
        ]
          .filter(Boolean)
          .join(', ')}
      </span>
      {count(marks, 'mark')}, {count(answers, 'answer')}
    </>
  );
}

function Mine({ set }: Pick<Props, 'set'>) {
  const left = leftOf(set);
  if (left === '') return <b className="font-semibold text-ink">done</b>;
  return (
    <>
      <b className={`block font-semibold ${isPast(set.myDueAt) ? 'text-brick' : 'text-ink'}`}>still missing</b>
      {left}
    </>
  );
}
