import type { Annotation, HeldIn } from '@avrelle/core/wire';
import { useRelease } from '../../../data/held-queries';
import { dueAt } from '../../../ui/when';
import { useSession } from '../../session/reader-context';

/** From which students a note is held, until when, and its release. */
export function HeldLine({ annotation: { id, held = [] } }: { readonly annotation: Annotation }) {
  return held.map((one) => <HeldFrom key={one.classId} id={id} held={one} />);
}

function HeldFrom({ id, held: { classId, releaseAt } }: { readonly id: string; readonly held: HeldIn }) {
  const release = useRelease();
  const name = useSession().classes.find((c) => c.id === classId)?.name ?? 'a class';
  return (
    <p className="mt-0.5 flex flex-wrap items-baseline gap-x-3 text-[13px] text-soft">
      {releaseAt ? `The students of ${name} see it ${dueAt(releaseAt)}.` : `The students of ${name} do not see it yet.`}
      <button className="act" onClick={() => void release(classId, [id])}>
        Release now
      </button>
    </p>
  );
}
