import { Link } from 'react-router';
import type { Annotation, ClassRow } from '@avrelle/core/wire';
import { useRelease } from '../../../data/held-queries';
import { Tint } from '../../../ui/Tint';
import { count } from '../../../ui/when';
import { useSession } from '../../session/reader-context';
import { Strip } from './Strip';

/**
 * For who teaches: what is held here from the students of their classes, and its release. It is there from when one
 * writes held: it does not come between, and move the page, with the first mark.
 */
export function HeldHere() {
  const { classes, annotations, audience } = useSession();
  const heldIn = ({ id }: ClassRow) => annotations.filter((a) => !a.deleted && a.held?.some((h) => h.classId === id));
  const taught = classes
    .filter((c) => c.role !== 'student')
    .map((c) => ({ of: c, held: heldIn(c) }))
    .filter(({ of, held }) => held.length > 0 || (audience.held === true && audience.classIds.includes(of.id)));
  if (taught.length === 0) return null;
  return (
    <Strip>
      {taught.map(({ of, held }) => (
        <InClass key={of.id} of={of} held={held} />
      ))}
    </Strip>
  );
}

function InClass({ of: { id, name, tint }, held }: { readonly of: ClassRow; readonly held: readonly Annotation[] }) {
  const { me } = useSession();
  const release = useRelease();
  const others = held.filter((a) => a.author.id !== me.id).length;
  return (
    <span className="flex flex-wrap items-baseline gap-x-3">
      <Tint tint={tint}>{name}</Tint>
      {held.length === 0 ? (
        <span>what you write now is held until you release it</span>
      ) : (
        <>
          <span>
            {count(held.length, 'note')} held
            {others > 0 && `, ${others} not by you`}
          </span>
          <button
            className="act"
            onClick={() =>
              void release(
                id,
                held.map((a) => a.id),
              )
            }
          >
            Release {held.length === 1 ? 'it' : `all ${held.length}`}
          </button>
          <Link className="act max-[900px]:hidden" to={`/classes/${id}/held`}>
            Some, or at a time
          </Link>
        </>
      )}
    </span>
  );
}
