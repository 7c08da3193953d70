import { useQuery } from '@tanstack/react-query';
import type { ClassId, SourceId } from '@avrelle/core/wire';
import { call } from './call';
import { keys } from './keys';

export const useMyAssignments = () =>
  useQuery({ queryKey: keys.myAssignments, queryFn: () => call('GET /api/assignments') });
export const useSetHere = (source: SourceId) =>
  useQuery({ queryKey: keys.setHere(source), queryFn: () => call('GET /api/assignments', { query: { source } }) });
export const useClassAssignments = (id: ClassId) =>
  useQuery({
    queryKey: keys.classAssignments(id),
    queryFn: () => call('GET /api/classes/:id/assignments', { params: { id } }),
  });
export const useAssignment = (id: ClassId, sourceId: SourceId) =>
  useQuery({
    queryKey: keys.assignment(id, sourceId),
    queryFn: () => call('GET /api/classes/:id/assignments/:sourceId', { params: { id, sourceId } }),
  });
