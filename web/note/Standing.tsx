import type { Annotation } from '@avrelle/core/wire';

type Known = Pick<Annotation, 'held' | 'hidden' | 'endorsed' | 'deleted'>;

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
export function StandingLines({ of: { hidden = [], endorsed, deleted } }: { readonly of: Known }) {
  if (deleted) return null;
  return (
    <>
      {endorsed && <p className="text-[13px] text-tide">Recommended by {endorsed}</p>}
      {hidden.map(({ classId, by, reason }) => (
        <p key={classId} className="border-l-2 border-brick pl-2 text-[13px] text-soft">
          Hidden from the students{by && ` by ${by}`}: <span className="text-ink">{reason}</span>
        </p>
      ))}
    </>
  );
}
