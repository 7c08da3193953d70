import { queryOptions, useQuery } from '@tanstack/react-query';
import { call } from './call';
import { keys } from './keys';

export const notificationsQuery = queryOptions({
  queryKey: keys.notifications,
  queryFn: () => call('GET /api/notifications'),
});
export const useNotifications = () => useQuery(notificationsQuery);

/** What I follow. */
export const useFollows = () => useQuery({ queryKey: keys.follows, queryFn: () => call('GET /api/follows') });
