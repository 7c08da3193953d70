import { useCallback } from 'react';
import type { Annotation, Live } from '@avrelle/core/wire';

/** Whether something was drawn by who shows, since they show, and kept: it goes on standing on the page. */
export function useKeptInk({ by: { id }, startedAt }: Live): (annotation: Annotation) => boolean {
  return useCallback(
    ({ author, anchor, createdAt }) => author.id === id && anchor?.spot?.type === 'drawn' && createdAt >= startedAt,
    [id, startedAt],
  );
}
