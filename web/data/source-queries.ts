import { withOwn } from './under-way';
import type { SourceId, VersionId } from '@avrelle/core/wire';
import { queryOptions, useQuery } from '@tanstack/react-query';
import { call } from './call';
import { keys } from './keys';

/** What was there of the same source stays until its other version has come: the page is not taken from under the reader. */
const sameSource =
  (id: string) =>
  <T>(before: T | undefined, query: { readonly queryKey: readonly unknown[] } | undefined): T | undefined =>
    query?.queryKey[1] === id ? before : undefined;

const ofVersion = (id: string, version?: number) => ({
  params: { id },
  query: version === undefined ? {} : { version: String(version) },
});

export const sourceQuery = (id: string, version?: number) =>
  queryOptions({
    queryKey: keys.source(id, version),
    queryFn: () => call('GET /api/sources/:id', ofVersion(id, version)),
  });
export const useSource = (id: string, version?: number) =>
  useQuery({ ...sourceQuery(id, version), placeholderData: sameSource(id) });
export const useSourceText = (id: string, versionId: VersionId | undefined, version: number | undefined) =>
  useQuery({
    queryKey: keys.text(id, versionId ?? ''),
    queryFn: () => call('GET /api/sources/:id/text', ofVersion(id, version)),
    enabled: Boolean(versionId),
    staleTime: Infinity,
  });
export const annotationsQuery = (id: string, version?: number) =>
  queryOptions({
    queryKey: keys.annotations(id, version),
    queryFn: async () =>
      (await call('GET /api/sources/:id/annotations', ofVersion(id, version))).flatMap((a) => withOwn(a) ?? []),
  });
export const useAnnotations = (id: string, version?: number) =>
  useQuery({ ...annotationsQuery(id, version), placeholderData: sameSource(id) });
export const annotationQuery = (id: string) =>
  queryOptions({
    queryKey: ['annotation', id] as const,
    queryFn: () => call('GET /api/annotations/:id', { params: { id } }),
  });

export const useEase = (id: string) =>
  useQuery({
    queryKey: ['ease', id] as const,
    queryFn: () => call('GET /api/sources/:id/ease', { params: { id } }),
    staleTime: Infinity,
  });
export const useVersions = (id: string) =>
  useQuery({
    queryKey: keys.versions(id),
    queryFn: () => call('GET /api/sources/:id/versions', { params: { id } }),
  });
/** Between two versions by their numbers; '' for what the server chooses. */
export const useChanges = (id: string, from: string, to: string) =>
  useQuery({
    queryKey: keys.changes(id, from, to),
    queryFn: () =>
      call('GET /api/sources/:id/changes', {
        params: { id },
        query: { ...(from ? { from } : {}), ...(to ? { to } : {}) },
      }),
  });
export const useReaders = (sourceId: SourceId | undefined) =>
  useQuery({
    queryKey: keys.readers(sourceId ?? ''),
    queryFn: () => call('GET /api/sources/:id/readers', { params: { id: sourceId! } }),
    enabled: sourceId !== undefined,
  });
export const useSuggestedTags = (id: string) =>
  useQuery({
    queryKey: ['library', 'suggested', id] as const,
    queryFn: () => call('GET /api/sources/:id/tag-suggestions', { params: { id } }),
  });
/** The collections that hold a source, by their ids. */
export const useHolding = (id: string, enabled: boolean) =>
  useQuery({
    queryKey: ['library', 'holding', id] as const,
    queryFn: () => call('GET /api/sources/:id/collections', { params: { id } }),
    enabled,
  });
