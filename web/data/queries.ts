import { keepPreviousData, QueryClient, useQuery } from '@tanstack/react-query';
import type { Annotation, ClassDetail, ClassRow, Desk, FindResult, Job, Library, SourceDetail, SourceText, Welcome } from '@avrelle/core/wire';
import { isOffline, request } from './api';

export const client = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 30_000, refetchOnWindowFocus: false, networkMode: 'always', retry: (count, error) => isOffline(error) && count < 5, retryDelay: (count) => Math.min(8000, 500 * 2 ** count) },
    mutations: { networkMode: 'always' },
  },
});

export interface LibraryFilter {
  readonly state?: string;
  readonly tag?: string;
  readonly words?: string;
}

export const keys = {
  welcome: ['welcome'] as const,
  library: (filter?: LibraryFilter) => (filter ? (['library', filter] as const) : (['library'] as const)),
  source: (id: string) => ['source', id] as const,
  text: (id: string, versionId: string) => ['text', id, versionId] as const,
  annotations: (sourceId: string) => ['annotations', sourceId] as const,
  classes: ['classes'] as const,
  class: (id: string) => ['classes', id] as const,
  desk: ['desk'] as const,
  jobs: ['jobs'] as const,
  find: (query: string) => ['find', query] as const,
};

export const useWelcome = () => useQuery({ queryKey: keys.welcome, queryFn: () => request<Welcome>('GET', '/api/welcome'), staleTime: Infinity });
export const useLibrary = (filter: LibraryFilter) => useQuery({ queryKey: keys.library(filter), queryFn: () => request<Library>('GET', `/api/sources?${new URLSearchParams({ ...filter })}`), placeholderData: keepPreviousData });
export const useSource = (id: string) => useQuery({ queryKey: keys.source(id), queryFn: () => request<SourceDetail>('GET', `/api/sources/${id}`) });
export const useSourceText = (id: string, versionId: string | undefined) => useQuery({ queryKey: keys.text(id, versionId ?? ''), queryFn: () => request<SourceText>('GET', `/api/sources/${id}/text`), enabled: Boolean(versionId), staleTime: Infinity });
export const useAnnotations = (sourceId: string) => useQuery({ queryKey: keys.annotations(sourceId), queryFn: () => request<Annotation[]>('GET', `/api/sources/${sourceId}/annotations`) });
export const useClasses = () => useQuery({ queryKey: keys.classes, queryFn: () => request<ClassRow[]>('GET', '/api/classes') });
export const useClass = (id: string) => useQuery({ queryKey: keys.class(id), queryFn: () => request<ClassDetail>('GET', `/api/classes/${id}`) });
export const useDesk = () => useQuery({ queryKey: keys.desk, queryFn: () => request<Desk>('GET', '/api/desk') });
export const useJobs = () => useQuery({ queryKey: keys.jobs, queryFn: () => request<Job[]>('GET', '/api/jobs') });
export const useFind = (query: string) => useQuery({ queryKey: keys.find(query), queryFn: () => request<FindResult>('GET', `/api/find?q=${encodeURIComponent(query)}`), enabled: query.trim() !== '', placeholderData: keepPreviousData });
