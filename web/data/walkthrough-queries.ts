import { queryOptions, useQuery } from '@tanstack/react-query';
import type { ClassId, SourceId, WalkthroughId } from '@avrelle/core/wire';
import { call } from './call';
import { keys } from './keys';

export const useWalkthroughs = (id: ClassId) =>
  useQuery({
    queryKey: keys.walkthroughs(id),
    queryFn: () => call('GET /api/classes/:id/walkthroughs', { params: { id } }),
  });
export const walkthroughQuery = (id: ClassId, walkthroughId: WalkthroughId) =>
  queryOptions({
    queryKey: keys.walkthrough(id, walkthroughId),
    queryFn: () => call('GET /api/classes/:id/walkthroughs/:walkthroughId', { params: { id, walkthroughId } }),
  });
/** Null where there is none to be asked for. */
export const useWalkthrough = (id: ClassId, walkthroughId: WalkthroughId | null) =>
  useQuery({ ...walkthroughQuery(id, walkthroughId ?? ''), enabled: walkthroughId !== null });
/** What is shown to classes of mine now. */
export const useLiveNow = () => useQuery({ queryKey: keys.live, queryFn: () => call('GET /api/live') });
export const useStars = (sourceId: SourceId) =>
  useQuery({
    queryKey: keys.stars(sourceId),
    queryFn: () => call('GET /api/sources/:id/stars', { params: { id: sourceId } }),
  });
/** What can become a step: notes with my star. */
export const useStarred = (id: ClassId) =>
  useQuery({ queryKey: keys.starred(id), queryFn: () => call('GET /api/classes/:id/starred', { params: { id } }) });
