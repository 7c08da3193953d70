import { useNavigate } from 'react-router';
import type { ClassId, LivePlace, StepNote } from '@avrelle/core/wire';
import { useWrite } from '../data/use-write';

/** What a step shows: its note, and where that stands as far as it is known here. */
export const placeOf = (note: StepNote, range: LivePlace['range'] = null): LivePlace => ({
  sourceId: note.source.id,
  annotationId: note.id,
  range,
});

interface Start {
  readonly place: LivePlace;
  readonly walkthroughId?: string;
  readonly step?: { readonly at: number; readonly of: number };
  readonly takeOver?: boolean;
}

/** Begins to show something to a class, and goes there. */
export function useStart(classId: ClassId): { start(what: Start): void; isPending: boolean } {
  const put = useWrite('PUT /api/classes/:id/live', 'live');
  const navigate = useNavigate();
  return {
    isPending: put.isPending,
    start: ({ place, walkthroughId = null as never, step = null as never, takeOver = false }) =>
      put.run(
        { params: { id: classId }, body: { place, walkthroughId, step, takeOver } },
        () => void navigate(`/classes/${classId}/live`),
      ),
  };
}
