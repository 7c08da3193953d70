import { useCallback } from 'react';
import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Api, SentQueryOf } from '@avrelle/core/api';
import type { Annotation, ClassId } from '@avrelle/core/wire';
import { useMessages } from '../ui/Messages';
import { call } from './call';
import { here } from './find-queries';
import { keys } from './keys';
import { outbox } from './outbox';
import { sendReply } from './send-reply';
import { useWrite } from './use-write';

const PAGE = 60;
export type ThreadsAsked = Pick<SentQueryOf<Api['GET /api/classes/:id/threads']>, 'q' | 'source' | 'sort' | 'only'>;

/** Threads of a class, part by part; what was there stays until others have come. */
export const useThreads = (id: ClassId, asked: ThreadsAsked) =>
  useInfiniteQuery({
    queryKey: keys.threads(id, asked),
    initialPageParam: 0,
    queryFn: ({ pageParam: offset }) =>
      call('GET /api/classes/:id/threads', { params: { id }, query: { ...here(), ...asked, offset, limit: PAGE } }),
    getNextPageParam: (last, _pages, at) => (at + last.threads.length < last.total ? at + PAGE : undefined),
    placeholderData: (before) => before,
  });

/** What is reported in a class and not settled; for who teaches it. */
export const useReports = (id: ClassId, teaches: boolean) =>
  useQuery({
    queryKey: keys.reports(id),
    queryFn: () => call('GET /api/classes/:id/reports', { params: { id } }),
    enabled: teaches,
  });

/** What one does in a discussion. */
export function useDiscussing(id: ClassId) {
  const client = useQueryClient();
  const messages = useMessages();
  const putStar = useWrite('PUT /api/annotations/:id/star', 'threads').run;
  const putSeen = useWrite('POST /api/classes/:id/threads/seen', 'threads').run;
  const reply = useCallback(
    (to: Annotation, note: string): Promise<boolean> =>
      sendReply({ client, messages, send: (write) => outbox.add(to.sourceId, write) }, to, note),
    [client, messages],
  );
  const star = useCallback(
    (annotationId: string, starred: boolean): void => putStar({ params: { id: annotationId }, body: { starred } }),
    [putStar],
  );
  const seeAll = useCallback(
    (sourceId: string | undefined): void => putSeen({ params: { id }, body: sourceId ? { sourceId } : {} }),
    [id, putSeen],
  );
  return { reply, star, seeAll };
}
