import { Link } from 'react-router';
import { assignmentKey, type Assignment } from '@avrelle/core/wire';
import { leftOf } from '@avrelle/core/class';
import { isPast } from '../classes/words';
import { Tint } from '../ui/Tint';
import { count, dueAt } from '../ui/when';

const BACK = { back: { to: '/desk', words: 'Desk' } };
/** What was due longer ago than this, or comes later, is in its class, in milliseconds. */
const NEAR = 14 * 86_400_000;

/** What is due for me, and, of what I set, how far the class is with it. */
export function Due({ of }: { readonly of: readonly Assignment[] }) {
  const due = of.filter(isShown);
  if (due.length === 0) return null;
  return (
    <section className="mb-7" aria-label="Due">
      <h2 className="mb-1 text-[17px]">Due</h2>
      <ul>
        {due.map((set) => (
          <li
            key={assignmentKey(set)}
            className="grid grid-cols-[1fr_auto] items-baseline gap-x-4 border-t border-rule py-2.5"
          >
            <div className="min-w-0">
              <h3 className="truncate text-[16px]">
                <Link
                  to={set.progress ? `/classes/${set.class.id}/readings/${set.source.id}` : `/source/${set.source.id}`}
                  state={BACK}
                  dir="auto"
                  lang={set.source.language || undefined}
                  className="hover:text-tide"
                >
                  {set.source.title}
                </Link>
              </h3>
              <p className="mt-0.5 text-[13px] text-soft">
                <Tint tint={set.class.tint}>{set.class.name}</Tint> · {stateOf(set)}
              </p>
            </div>
            {set.myDueAt && (
              <span className={`text-right text-[13.5px] ${isPast(set.myDueAt) ? 'text-brick' : 'text-soft'}`}>
                {isPast(set.myDueAt) ? 'was due' : 'due'} {dueAt(set.myDueAt)}
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What stands among what is due. */
export function isShown(set: Assignment): boolean {
  const { myDueAt, progress, isOpen } = set;
  if (!isOpen) return false;
  const far = myDueAt === null ? 0 : Date.parse(myDueAt) - Date.now();
  if (progress) return myDueAt !== null && far >= 0 && far <= NEAR;
  return Math.abs(far) <= NEAR && leftOf(set) !== '';
}

function stateOf(set: Assignment): string {
  const { progress } = set;
  if (!progress) return `still missing: ${leftOf(set)}`;
  const { done, students } = progress;
  return students === 0
    ? 'no students yet'
    : `${done} of ${count(students, 'student')} ${done === 1 ? 'has' : 'have'} done all`;
}
