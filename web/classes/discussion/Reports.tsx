import type { Annotation, ClassDetail } from '@avrelle/core/wire';
import { useReports } from '../../data/discussion-queries';
import { useWrite } from '../../data/use-write';
import { when } from '../../ui/when';

/** For who teaches: who reported something and why, until it is settled. */
export function Reports({ of, within: c }: { readonly of: Annotation; readonly within: ClassDetail }) {
  const settle = useWrite('PUT /api/classes/:id/annotations/:annotationId/settled', 'threads');
  const found = useReports(c.id, c.role !== 'student').data ?? [];
  const reports = found.filter((report) => report.annotationId === of.id);
  if (reports.length === 0) return null;
  return (
    <div className="mt-1 border-l-2 border-brick pl-2 text-[13.5px]">
      {reports.map(({ by, words, at }) => (
        <p key={by.id}>
          <span className="text-soft">
            Reported by {by.name}, {when(at)}:
          </span>{' '}
          {words}
        </p>
      ))}
      <button className="act" onClick={() => settle.run({ params: { id: c.id, annotationId: of.id } })}>
        Settled
      </button>
    </div>
  );
}
