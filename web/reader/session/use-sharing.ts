import { useCallback, useMemo } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { ClassRow, SourceDetail, ClassId } from '@avrelle/core/wire';
import { wordsOf } from '../../data/api';
import { call } from '../../data/call';
import { renew } from '../../data/queries';
import { useMessages } from '../../ui/Messages';

/** Which classes have the source, and giving it to further ones before anything is written for them. */
export function useSharing(source: SourceDetail, classes: readonly ClassRow[]) {
  const client = useQueryClient();
  const messages = useMessages();
  const having = useMemo(() => new Set(source.classes.map((c) => c.id)), [source.classes]);
  /** Makes sure every class can read the source. False when one could not be given it; the person is told why. */
  const share = useCallback(
    async (classIds: readonly ClassId[]): Promise<boolean> => {
      try {
        for (const id of classIds) {
          if (having.has(id)) continue;
          await call('PUT /api/classes/:id/sources/:sourceId', { params: { id, sourceId: source.id } });
          messages.tell(`${classes.find((c) => c.id === id)?.name ?? 'The class'} can read this source now.`);
        }
        await renew(client, 'sources');
        return true;
      } catch (error) {
        messages.warn(wordsOf(error));
        return false;
      }
    },
    [having, source.id, classes, client, messages],
  );
  return useMemo(() => ({ having, share }), [having, share]);
}
