import type { QueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import type { ClassId, Live, LivePlace, StepNote, WalkthroughId } from '@avrelle/core/wire';
import { annotationsQuery } from '../data/source-queries';
import { useWrite } from '../data/use-write';

/** What a step shows: its note, and, for those who do not see that, where it stands, as far as that is known here. */
export function placeOf(client: QueryClient, { id, source }: StepNote): LivePlace {
  const known = client.getQueryData(annotationsQuery(source.id).queryKey);
  const { start, end } = known?.find((one) => one.id === id)?.place ?? { start: null, end: null };
  const range = start === null || end === null ? null : { start, end };
  return { sourceId: source.id, annotationId: id, range };
}

interface Start {
  readonly place: LivePlace;
  readonly walkthroughId?: WalkthroughId | null;
  readonly step?: Live['step'];
  readonly takeOver?: boolean;
}

/** Begins to show something to a class, and goes there. */
export function useStart(classId: ClassId): { start(what: Start): void; isPending: boolean } {
  const put = useWrite('PUT /api/classes/:id/live', 'live');
  const navigate = useNavigate();
  return {
    isPending: put.isPending,
    start: ({ place, walkthroughId = null, step = null, takeOver = false }) =>
      put.run(
        { params: { id: classId }, body: { place, walkthroughId, step, takeOver } },
        () => void navigate(`/classes/${classId}/live`),
      ),
  };
}
