import { useQuery } from '@tanstack/react-query';
import { call } from './call';
import { keys } from './keys';

/** How others join a class; for who teaches it. */
export const useJoining = (id: string) =>
  useQuery({
    queryKey: keys.joining(id),
    queryFn: () => call('GET /api/classes/:id/joining', { params: { id } }),
  });
export const useInvitation = (link: string) =>
  useQuery({
    queryKey: keys.invitation(link),
    queryFn: () => call('GET /api/join-link', { query: { link } }),
  });
export const useMyRequests = () =>
  useQuery({ queryKey: keys.myRequests, queryFn: () => call('GET /api/join-requests') });

/** Where a link to join leads. */
export const joinAddress = (token: string): string => `${location.origin}/join/${token}`;
