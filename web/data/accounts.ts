import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import { listPeople, listSessions, listTokens, PEOPLE_AT_ONCE } from '@avrelle/core/api';
import { call } from './call';

export const accountKeys = {
  sessions: ['account', 'sessions'] as const,
  tokens: ['account', 'tokens'] as const,
  people: ['people'] as const,
};

export const sessionsQuery = queryOptions({ queryKey: accountKeys.sessions, queryFn: () => call(listSessions, {}) });
export const tokensQuery = queryOptions({ queryKey: accountKeys.tokens, queryFn: () => call(listTokens, {}) });

/** All accounts, as many as come at once, by what stands in their name or address. */
export const peopleQuery = (search: string) =>
  infiniteQueryOptions({
    queryKey: [...accountKeys.people, search],
    queryFn: ({ pageParam: offset }) => call(listPeople, { query: { search, offset } }),
    initialPageParam: 0,
    getNextPageParam: ({ total }, pages) =>
      pages.length * PEOPLE_AT_ONCE < total ? pages.length * PEOPLE_AT_ONCE : null,
  });
