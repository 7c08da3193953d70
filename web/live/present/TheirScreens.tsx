import type { ClassDetail, Follower } from '@avrelle/core/wire';
import { shortName } from '../../ui/when';
import { Elapsed } from '../Elapsed';
import { useRoom, useRoomView } from '../room-context';

/** Who follows, who looks around and where, whose connection is lost, and who is not there. */
export function TheirScreens({ of: c }: { readonly of: ClassDetail }) {
  const room = useRoom();
  const people = useRoomView((view) => view.people);
  const here = new Set(people.map(({ id }) => id));
  const missing = c.members.filter(({ id, role }) => role === 'student' && !here.has(id));
  return (
    <section aria-label="Their screens">
      <h2 className="mb-1.5 flex items-baseline text-[16px]">
        Their screens
        {people.some(({ around }) => around) && (
          <button
            className="act ml-auto font-ui text-[13px]"
            onClick={() => room.say({ type: 'recall', personId: null })}
          >
            Call all back
          </button>
        )}
      </h2>
      <ul>
        {people.map((one) => (
          <Screen key={one.id} of={one} />
        ))}
      </ul>
      {people.length === 0 && <p className="text-[14px] text-soft">Nobody follows yet.</p>}
      {missing.length > 0 && (
        <p className="mt-2 text-[13px] text-soft">Not here: {missing.map(({ name }) => shortName(name)).join(', ')}</p>
      )}
    </section>
  );
}

function Screen({ of }: { readonly of: Follower }) {
  const room = useRoom();
  const { id, name, hand, around, at, lostAt } = of;
  return (
    <li className="border-t border-rule py-1.5 text-[14px]">
      <p className="flex flex-wrap items-baseline gap-x-2">
        <span>{shortName(name)}</span>
        <span className={`ml-auto text-right text-[13px] ${around ? 'text-brick' : 'text-soft'}`}>
          {lostAt === null ? (
            followWords(around, at)
          ) : (
            <>
              connection lost, <Elapsed since={lostAt} />
            </>
          )}
          {hand && <b className="font-semibold text-brick">, has a question</b>}
        </span>
      </p>
      {(hand || (around && lostAt === null)) && (
        <p className="flex justify-end gap-x-4 text-[13px]">
          {around && (
            <button
              className="act"
              aria-label={`Call back ${name}`}
              onClick={() => room.say({ type: 'recall', personId: id })}
            >
              Call back
            </button>
          )}
          {hand && (
            <button
              className="act"
              aria-label={`Seen: the hand of ${name}`}
              onClick={() => room.say({ type: 'lower', personId: id })}
            >
              Seen
            </button>
          )}
        </p>
      )}
    </li>
  );
}

function followWords(around: boolean, at: number | null): string {
  if (!around) return 'follows';
  return at === null ? 'looks around' : `looks around, at paragraph ${at + 1}`;
}
