import { infiniteQueryOptions, queryOptions, useQuery } from '@tanstack/react-query';
import { PEOPLE_AT_ONCE } from '@avrelle/core/wire';
import { call } from './call';
import { keys } from './keys';

export const welcomeQuery = queryOptions({
  queryKey: keys.welcome,
  queryFn: () => call('GET /api/welcome'),
  staleTime: Infinity,
});
export const useWelcome = () => useQuery(welcomeQuery);

export const sessionsQuery = queryOptions({
  queryKey: keys.sessions,
  queryFn: () => call('GET /api/account/sessions'),
});
export const tokensQuery = queryOptions({ queryKey: keys.tokens, queryFn: () => call('GET /api/account/tokens') });

/** All accounts, as many as come at once, by what stands in their name or address. */
export const peopleQuery = (search: string) =>
  infiniteQueryOptions({
    queryKey: [...keys.people, search],
    queryFn: ({ pageParam: offset }) => call('GET /api/people', { query: { search, offset } }),
    initialPageParam: 0,
    getNextPageParam: ({ total }, pages) =>
      pages.length * PEOPLE_AT_ONCE < total ? pages.length * PEOPLE_AT_ONCE : null,
  });
