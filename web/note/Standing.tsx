import type { Annotation } from '@avrelle/core/wire';
import { useWrite } from '../data/use-write';
import { useMessages } from '../ui/Messages';

type Known = Pick<Annotation, 'id' | 'rootId' | 'held' | 'hidden' | 'elsewhere' | 'endorsed' | 'deleted'>;

/** What is said of a note beside its author: that it is held or hidden from students, or recommended by a teacher. */
export function Standing({ of: { held, hidden, endorsed, deleted } }: { readonly of: Known }) {
  if (deleted) return null;
  return (
    <>
      {held && <span className="font-semibold text-brick">held</span>}
      {hidden && <span className="font-semibold text-brick">hidden</span>}
      {endorsed && <span className="font-semibold text-tide">recommended</span>}
    </>
  );
}

/** The same at length, in the open note. */
export function StandingLines({
  of: { id, rootId, hidden = [], elsewhere, endorsed, deleted },
}: {
  readonly of: Known;
}) {
  if (deleted) return null;
  return (
    <>
      {endorsed && <p className="text-[13px] text-tide">Recommended by {endorsed}</p>}
      {elsewhere && rootId === null && <Elsewhere id={id} isAskable={elsewhere === 'askable'} />}
      {hidden.map(({ classId, by, reason }) => (
        <p key={classId} className="border-l-2 border-brick pl-2 text-[13px] text-soft">
          Hidden from the students{by && ` by ${by}`}: <span className="text-ink">{reason}</span>
        </p>
      ))}
    </>
  );
}

/** Another class reads it, too; not which. */
function Elsewhere({ id, isAskable }: { readonly id: string; readonly isAskable: boolean }) {
  const ask = useWrite('POST /api/annotations/:id/ask-to-join', 'requests');
  const messages = useMessages();
  return (
    <p className="text-[13px] text-soft">
      Another class reads this note, too.{' '}
      {isAskable && (
        <button
          className="act"
          onClick={() =>
            ask.run({ params: { id } }, ({ asked }) =>
              messages.tell(
                asked > 0
                  ? 'Its teachers are asked to let you in. You find this under Classes.'
                  : 'You have asked already. A teacher of that class lets you in.',
              ),
            )
          }
        >
          Ask to join it
        </button>
      )}
    </p>
  );
}
