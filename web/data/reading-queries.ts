import { useEffect } from 'react';
import { useInfiniteQuery } from '@tanstack/react-query';
import type { ClassDetail, SourceRow } from '@avrelle/core/wire';
import { call } from './call';
import { keys } from './keys';

/** Readings of a class: those that come with it, and further ones part by part as they are asked for. */
export function useReadings(of: ClassDetail) {
  const more = useInfiniteQuery({
    queryKey: [...keys.class(of.id), 'readings'] as const,
    enabled: false,
    initialPageParam: of.readings.length,
    queryFn: ({ pageParam: offset }) =>
      call('GET /api/classes/:id/readings', { params: { id: of.id }, query: { offset } }),
    getNextPageParam: (last, _pages, at) => (last.length > 0 ? at + last.length : undefined),
  });
  const readings: readonly SourceRow[] = [...of.readings, ...(more.data?.pages ?? []).flat()];
  return {
    readings,
    /** Whether there are further ones, as far as is known. */
    isMore: readings.length < of.sources && (more.data === undefined || more.hasNextPage),
    isFetching: more.isFetching,
    isError: more.isError,
    fetchMore: more.fetchNextPage,
  };
}
/** All of them, asked for one part after another. */
export function useAllReadings(of: ClassDetail): readonly SourceRow[] {
  const { readings, isMore, isFetching, isError, fetchMore } = useReadings(of);
  useEffect(() => {
    if (isMore && !isFetching && !isError) void fetchMore();
  }, [readings.length, isMore, isFetching, isError, fetchMore]);
  return readings;
}
