import { queryOptions, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { ClassDetail } from '@avrelle/core/wire';
import { call } from './call';
import { keys } from './keys';

export const classesQuery = queryOptions({ queryKey: keys.classes, queryFn: () => call('GET /api/classes') });
export const useClasses = () => useQuery(classesQuery);
export const useClass = (id: string) =>
  useQuery({ queryKey: keys.class(id), queryFn: () => call('GET /api/classes/:id', { params: { id } }) });
/** Readings of a class beyond those that come with it, part by part as they are asked for. */
export const useMoreReadings = (id: string, known: ClassDetail | undefined) =>
  useInfiniteQuery({
    queryKey: [...keys.class(id), 'readings'] as const,
    enabled: false,
    initialPageParam: known?.readings.length ?? 0,
    queryFn: ({ pageParam: offset }) => call('GET /api/classes/:id/readings', { params: { id }, query: { offset } }),
    getNextPageParam: (last, _pages, at) => (last.length > 0 ? at + last.length : undefined),
  });
export const useDeletedClasses = () =>
  useQuery({ queryKey: keys.deletedClasses, queryFn: () => call('GET /api/deleted-classes') });
export const useLegends = () => useQuery({ queryKey: keys.legends, queryFn: () => call('GET /api/legends') });
