import { keepPreviousData, QueryClient, useQuery } from '@tanstack/react-query';
import type { Annotation, ClassDetail, Comparison, VersionRow, ClassRow, Desk, FindResult, Job, Library, SourceDetail, SourceText, Welcome } from '@avrelle/core/wire';
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
  /** Of a version by its number; the newest without. */
  source: (id: string, version?: number) => (version === undefined ? (['source', id] as const) : (['source', id, version] as const)),
  versions: (id: string) => ['versions', id] as const,
  changes: (id: string, from: string, to: string) => ['changes', id, from, to] as const,
  text: (id: string, versionId: string) => ['text', id, versionId] as const,
  annotations: (sourceId: string, version?: number) => (version === undefined ? (['annotations', sourceId] as const) : (['annotations', sourceId, version] as const)),
  classes: ['classes'] as const,
  class: (id: string) => ['classes', id] as const,
  desk: ['desk'] as const,
  jobs: ['jobs'] as const,
  find: (query: string) => ['find', query] as const,
};

/** What was there of the same source stays until its other version has come: the page is not taken from under the reader. */
const sameSource = (id: string) => <T>(before: T | undefined, query: { readonly queryKey: readonly unknown[] } | undefined): T | undefined => (query?.queryKey[1] === id ? before : undefined);

export const useWelcome = () => useQuery({ queryKey: keys.welcome, queryFn: () => request<Welcome>('GET', '/api/welcome'), staleTime: Infinity });
export const useLibrary = (filter: LibraryFilter) => useQuery({ queryKey: keys.library(filter), queryFn: () => request<Library>('GET', `/api/sources?${new URLSearchParams({ ...filter })}`), placeholderData: keepPreviousData });
const numbered = (version?: number): string => (version === undefined ? '' : `?version=${version}`);
export const useSource = (id: string, version?: number) => useQuery({ queryKey: keys.source(id, version), queryFn: () => request<SourceDetail>('GET', `/api/sources/${id}${numbered(version)}`), placeholderData: sameSource(id) });
export const useSourceText = (id: string, versionId: string | undefined, version: number | undefined) => useQuery({ queryKey: keys.text(id, versionId ?? ''), queryFn: () => request<SourceText>('GET', `/api/sources/${id}/text${numbered(version)}`), enabled: Boolean(versionId), staleTime: Infinity });
export const useAnnotations = (sourceId: string, version?: number) => useQuery({ queryKey: keys.annotations(sourceId, version), queryFn: () => request<Annotation[]>('GET', `/api/sources/${sourceId}/annotations${numbered(version)}`), placeholderData: sameSource(sourceId) });
export const useVersions = (id: string) => useQuery({ queryKey: keys.versions(id), queryFn: () => request<VersionRow[]>('GET', `/api/sources/${id}/versions`) });
export const useChanges = (id: string, from: string, to: string) => useQuery({ queryKey: keys.changes(id, from, to), queryFn: () => request<Comparison>('GET', `/api/sources/${id}/changes?${new URLSearchParams({ ...(from ? { from } : {}), ...(to ? { to } : {}) })}`) });
export const useClasses = () => useQuery({ queryKey: keys.classes, queryFn: () => request<ClassRow[]>('GET', '/api/classes') });
export const useClass = (id: string) => useQuery({ queryKey: keys.class(id), queryFn: () => request<ClassDetail>('GET', `/api/classes/${id}`) });
export const useDesk = () => useQuery({ queryKey: keys.desk, queryFn: () => request<Desk>('GET', '/api/desk') });
export const useJobs = () => useQuery({ queryKey: keys.jobs, queryFn: () => request<Job[]>('GET', '/api/jobs') });
export const useFind = (query: string) => useQuery({ queryKey: keys.find(query), queryFn: () => request<FindResult>('GET', `/api/find?q=${encodeURIComponent(query)}`), enabled: query.trim() !== '', placeholderData: keepPreviousData });
