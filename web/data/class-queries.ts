import { queryOptions, useQuery } from '@tanstack/react-query';
import type { ClassRow } from '@avrelle/core/wire';
import { call } from './call';
import { keys } from './keys';

export const classesQuery = queryOptions({ queryKey: keys.classes, queryFn: () => call('GET /api/classes') });
export const useClasses = () => useQuery(classesQuery);
const isOpen = ({ archivedAt }: ClassRow): boolean => archivedAt === null;
/** Those for which anything new is written. */
export const useOpenClasses = () => useQuery({ ...classesQuery, select: (all) => all.filter(isOpen) });
export const useClass = (id: string) =>
  useQuery({ queryKey: keys.class(id), queryFn: () => call('GET /api/classes/:id', { params: { id } }) });
export const useDeletedClasses = () =>
  useQuery({ queryKey: keys.deletedClasses, queryFn: () => call('GET /api/deleted-classes') });
export const useLegends = () => useQuery({ queryKey: keys.legends, queryFn: () => call('GET /api/legends') });
