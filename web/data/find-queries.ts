import { keepPreviousData, queryOptions, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { call } from './call';
import { keys, type AnnotationsAsked, type SourcesAsked } from './keys';

/** How many rows of a list are asked for at once. */
export const PAGE = 60;
const NEXT_PAGE = 200;

/** The day it is here, and how far clocks here are ahead of UTC: searches by days go by them. */
export const here = () => {
  const now = new Date();
  return {
    day: new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10),
    ahead: -now.getTimezoneOffset(),
  };
};

export const sourcesQuery = (asked: SourcesAsked) =>
  queryOptions({
    queryKey: keys.sources(asked),
    queryFn: () => call('GET /api/sources', { query: { ...asked, ...here() } }),
  });
export const useSources = (asked: SourcesAsked, enabled = true) =>
  useQuery({ ...sourcesQuery(asked), placeholderData: keepPreviousData, enabled });

const foundQuery = (asked: AnnotationsAsked) =>
  queryOptions({
    queryKey: keys.found(asked),
    queryFn: () => call('GET /api/annotations', { query: { ...asked, ...here() } }),
  });
export const useFound = (asked: AnnotationsAsked, enabled = true) =>
  useQuery({ ...foundQuery(asked), placeholderData: keepPreviousData, enabled });

/** As many as are wanted, part by part: `fetchNextPage` brings the next, of as many as the server gives. */
export const useAllFound = (asked: AnnotationsAsked, enabled: boolean) =>
  useInfiniteQuery({
    queryKey: ['found', 'parts', asked] as const,
    enabled,
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: ({ pageParam: offset }) =>
      call('GET /api/annotations', {
        query: { ...asked, offset, limit: offset === 0 ? PAGE : NEXT_PAGE, ...here() },
      }),
    getNextPageParam: ({ annotations, listed }, _, offset) =>
      annotations.length > 0 && offset + annotations.length < listed ? offset + annotations.length : undefined,
  });

export const useDesk = () => useQuery({ queryKey: keys.desk, queryFn: () => call('GET /api/desk', { query: here() }) });
