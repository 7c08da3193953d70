import { useCallback } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { AnnotationId, ClassId } from '@avrelle/core/wire';
import { useMessages } from '../ui/Messages';
import { count } from '../ui/when';
import { wordsOf } from './api';
import { call } from './call';
import { keys } from './keys';
import { renew } from './stale';
import { useWrite } from './use-write';

export const useHeld = (id: ClassId, teaches: boolean) =>
  useQuery({
    queryKey: keys.held(id),
    queryFn: () => call('GET /api/classes/:id/held', { params: { id } }),
    enabled: teaches,
  });

/** What is held in a class, shown to its students now, or at a time; null is by hand. */
export type Release = (classId: ClassId, annotationIds: readonly AnnotationId[], at?: string | null) => Promise<void>;

/** Releases, says so, and offers to take it back. */
export function useRelease(): Release {
  const client = useQueryClient();
  const messages = useMessages();
  const release = useWrite('POST /api/classes/:id/held/release', 'classes').send;
  const back = useWrite('POST /api/classes/:id/held/back', 'classes').run;
  return useCallback<Release>(
    async (id, annotationIds, at) => {
      const params = { id };
      const some = [...annotationIds];
      const takeBack = (): void =>
        back({ params, body: { annotationIds: some } }, () => messages.tell('Held again: nobody had read it.'));
      try {
        const { changed } = await release({
          params,
          body: { annotationIds: some, ...(at === undefined ? {} : { at }) },
        });
        if (at !== undefined) messages.tell(at === null ? 'Held until you release it.' : 'It will be released then.');
        else if (changed === 0) messages.tell('That was released already.');
        else messages.tell(`${count(changed, 'note')} released.`, { label: 'Undo', run: takeBack });
      } catch (error) {
        messages.warn(wordsOf(error));
        // What it says may be that it stands otherwise by now.
        await renew(client, 'classes');
      }
    },
    [client, messages, release, back],
  );
}
