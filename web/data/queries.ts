import { keepPreviousData, notifyManager, QueryClient, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type {
  Annotation,
  AnnotationGrouping,
  Arrival,
  Batch,
  Draft,
  Feed,
  Intake,
  ClassDetail,
  Comparison,
  VersionRow,
  ClassRow,
  Desk,
  Ease,
  AnnotationPage,
  AnnotationSort,
  CollectionDetail,
  DeletedSource,
  Job,
  Keys,
  LibraryOutline,
  Linked,
  Person,
  SourceDetail,
  SourcePage,
  SourceRow,
  SourceSort,
  SourceText,
  TopicNews,
  TopicPage,
  Welcome,
} from '@avrelle/core/wire';
import { isOffline, request } from './api';

// What was changed is shown in the same frame.
notifyManager.setScheduler(queueMicrotask);

export const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      refetchOnWindowFocus: false,
      networkMode: 'always',
      retry: (count, error) => isOffline(error) && count < 5,
      retryDelay: (count) => Math.min(8000, 500 * 2 ** count),
    },
    mutations: { networkMode: 'always' },
  },
});

/** How many rows of a list are asked for at once. */
export const PAGE = 60;
const NEXT_PAGE = 200;

/** Which rows of which list. */
export interface ListAsked<Sort extends string> {
  readonly q: string;
  readonly sort?: Sort | undefined;
  readonly offset?: number;
  readonly limit?: number;
  /** Of annotations: group by group. */
  readonly by?: AnnotationGrouping | undefined;
  /** With the passages in which words are found. */
  readonly passages?: boolean;
}

/** A search that cannot be read is not asked again. */
const retryUnread = (count: number, error: unknown): boolean => isOffline(error) && count < 5;

export const keys = {
  welcome: ['welcome'] as const,
  /** Everything that lists sources. */
  library: ['library'] as const,
  outline: ['library', 'outline'] as const,
  sources: (asked: ListAsked<SourceSort>) => ['library', 'sources', asked] as const,
  deleted: ['library', 'deleted'] as const,
  collection: (id: string) => ['library', 'collection', id] as const,
  found: (asked: ListAsked<AnnotationSort>) => ['found', asked] as const,
  /** Of a version by its number; the newest without. */
  source: (id: string, version?: number) =>
    version === undefined ? (['source', id] as const) : (['source', id, version] as const),
  versions: (id: string) => ['versions', id] as const,
  changes: (id: string, from: string, to: string) => ['changes', id, from, to] as const,
  text: (id: string, versionId: string) => ['text', id, versionId] as const,
  annotations: (sourceId: string, version?: number) =>
    version === undefined ? (['annotations', sourceId] as const) : (['annotations', sourceId, version] as const),
  keys: ['keys'] as const,
  classes: ['classes'] as const,
  class: (id: string) => ['classes', id] as const,
  tags: ['tags'] as const,
  tints: ['tags', 'tints'] as const,
  readers: (sourceId: string) => ['readers', sourceId] as const,
  topic: (tag: string) => ['topics', tag] as const,
  leading: (to: string) => ['topics', 'leading', to] as const,
  links: (to: string) => ['links', to] as const,
  desk: ['desk'] as const,
  jobs: ['jobs'] as const,
  arrivals: ['arrivals'] as const,
  lists: ['lists'] as const,
  feeds: ['feeds'] as const,
  intake: ['intake'] as const,
  draft: (id: string) => ['draft', id] as const,
};

/** What was there of the same source stays until its other version has come: the page is not taken from under the reader. */
const sameSource =
  (id: string) =>
  <T>(before: T | undefined, query: { readonly queryKey: readonly unknown[] } | undefined): T | undefined =>
    query?.queryKey[1] === id ? before : undefined;

export const welcomeQuery = {
  queryKey: keys.welcome,
  queryFn: () => request<Welcome>('GET', '/api/welcome'),
  staleTime: Infinity,
};
export const useWelcome = () => useQuery(welcomeQuery);
/** The day it is here, and how far clocks here are ahead of UTC: searches by days go by them. */
export const here = () => {
  const now = new Date();
  return {
    day: new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10),
    ahead: String(-now.getTimezoneOffset()),
  };
};
const askedAs = <Sort extends string>({ q, sort, offset = 0, limit = PAGE, by, passages }: ListAsked<Sort>): string =>
  String(
    new URLSearchParams({
      q,
      offset: String(offset),
      limit: String(limit),
      ...(sort ? { sort } : {}),
      ...(by ? { by } : {}),
      ...(passages ? { passages: 'yes' } : {}),
      ...here(),
    }),
  );
export const sourcesQuery = (asked: ListAsked<SourceSort>) => ({
  queryKey: keys.sources(asked),
  queryFn: () => request<SourcePage>('GET', `/api/sources?${askedAs(asked)}`),
  retry: retryUnread,
});
export const useSources = (asked: ListAsked<SourceSort>, enabled = true) =>
  useQuery({ ...sourcesQuery(asked), placeholderData: keepPreviousData, enabled });
export const foundQuery = (asked: ListAsked<AnnotationSort>) => ({
  queryKey: keys.found(asked),
  queryFn: () => request<AnnotationPage>('GET', `/api/annotations?${askedAs(asked)}`),
  retry: retryUnread,
});
export const useFound = (asked: ListAsked<AnnotationSort>, enabled = true) =>
  useQuery({ ...foundQuery(asked), placeholderData: keepPreviousData, enabled });
/** As many as are wanted, part by part: `fetchNextPage` brings the next, of as many as the server gives. */
export const useAllFound = (asked: ListAsked<AnnotationSort>, enabled: boolean) =>
  useInfiniteQuery({
    queryKey: ['found', 'parts', asked] as const,
    enabled,
    retry: retryUnread,
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      request<AnnotationPage>(
        'GET',
        `/api/annotations?${askedAs({ ...asked, offset: pageParam, limit: pageParam === 0 ? PAGE : NEXT_PAGE })}`,
      ),
    getNextPageParam: ({ annotations, listed }, _, offset) =>
      annotations.length > 0 && offset + annotations.length < listed ? offset + annotations.length : undefined,
  });
export const useOutline = (enabled = true) =>
  useQuery({
    enabled,
    queryKey: keys.outline,
    queryFn: () => request<LibraryOutline>('GET', `/api/library?${new URLSearchParams(here())}`),
  });
export const useCollection = (id: string) =>
  useQuery({
    queryKey: keys.collection(id),
    queryFn: () => request<CollectionDetail>('GET', `/api/collections/${id}`),
  });
/** The collections that hold a source, by their ids. */
export const useHolding = (sourceId: string, enabled: boolean) =>
  useQuery({
    queryKey: ['library', 'holding', sourceId] as const,
    queryFn: () => request<string[]>('GET', `/api/sources/${sourceId}/collections`),
    enabled,
  });
export const useDeleted = (enabled: boolean) =>
  useQuery({ queryKey: keys.deleted, queryFn: () => request<DeletedSource[]>('GET', '/api/sources/deleted'), enabled });
const numbered = (version?: number): string => (version === undefined ? '' : `?version=${version}`);
export const sourceQuery = (id: string, version?: number) => ({
  queryKey: keys.source(id, version),
  queryFn: () => request<SourceDetail>('GET', `/api/sources/${id}${numbered(version)}`),
});
export const useSource = (id: string, version?: number) =>
  useQuery({ ...sourceQuery(id, version), placeholderData: sameSource(id) });
export const useSourceText = (id: string, versionId: string | undefined, version: number | undefined) =>
  useQuery({
    queryKey: keys.text(id, versionId ?? ''),
    queryFn: () => request<SourceText>('GET', `/api/sources/${id}/text${numbered(version)}`),
    enabled: Boolean(versionId),
    staleTime: Infinity,
  });
export const annotationsQuery = (sourceId: string, version?: number) => ({
  queryKey: keys.annotations(sourceId, version),
  queryFn: () => request<Annotation[]>('GET', `/api/sources/${sourceId}/annotations${numbered(version)}`),
});
export const useAnnotations = (sourceId: string, version?: number) =>
  useQuery({ ...annotationsQuery(sourceId, version), placeholderData: sameSource(sourceId) });
export const useEase = (id: string) =>
  useQuery({
    queryKey: ['ease', id] as const,
    queryFn: () => request<Ease | null>('GET', `/api/sources/${id}/ease`),
    staleTime: Infinity,
  });
export const useVersions = (id: string) =>
  useQuery({ queryKey: keys.versions(id), queryFn: () => request<VersionRow[]>('GET', `/api/sources/${id}/versions`) });
export const useChanges = (id: string, from: string, to: string) =>
  useQuery({
    queryKey: keys.changes(id, from, to),
    queryFn: () =>
      request<Comparison>(
        'GET',
        `/api/sources/${id}/changes?${new URLSearchParams({ ...(from ? { from } : {}), ...(to ? { to } : {}) })}`,
      ),
  });
export const classesQuery = { queryKey: keys.classes, queryFn: () => request<ClassRow[]>('GET', '/api/classes') };
export const useClasses = () => useQuery(classesQuery);
export const useKeys = () => useQuery({ queryKey: keys.keys, queryFn: () => request<Keys>('GET', '/api/keys') });
export const useClass = (id: string) =>
  useQuery({ queryKey: keys.class(id), queryFn: () => request<ClassDetail>('GET', `/api/classes/${id}`) });
/** Readings of a class beyond those that come with it, part by part as they are asked for. */
export const useMoreReadings = (id: string, known: ClassDetail | undefined) =>
  useInfiniteQuery({
    queryKey: [...keys.class(id), 'readings'] as const,
    enabled: false,
    initialPageParam: known?.readings.length ?? 0,
    queryFn: ({ pageParam }) => request<SourceRow[]>('GET', `/api/classes/${id}/readings?offset=${pageParam}`),
    getNextPageParam: (last, _pages, at) => (last.length > 0 ? at + last.length : undefined),
  });
export const useTags = () => useQuery({ queryKey: keys.tags, queryFn: () => request<string[]>('GET', '/api/tags') });
export const useTints = (enabled: boolean) =>
  useQuery({
    queryKey: keys.tints,
    queryFn: () => request<Readonly<Record<string, string>>>('GET', '/api/tags/tints'),
    staleTime: Infinity,
    enabled,
  });
export const useReaders = (sourceId: string | undefined) =>
  useQuery({
    queryKey: keys.readers(sourceId ?? ''),
    queryFn: () => request<Person[]>('GET', `/api/sources/${sourceId}/readers`),
    enabled: sourceId !== undefined,
  });
export const useTopic = (tag: string) =>
  useQuery({
    queryKey: keys.topic(tag),
    queryFn: () => request<TopicPage>('GET', `/api/topics?${new URLSearchParams({ tag })}`),
    staleTime: Infinity,
  });
export const useSuggestedTags = (sourceId: string) =>
  useQuery({
    queryKey: ['library', 'suggested', sourceId] as const,
    queryFn: () => request<string[]>('GET', `/api/sources/${sourceId}/tag-suggestions`),
  });
/** What bears a tag only since one last wrote about it. */
export const useTopicNews = (tag: string) =>
  useQuery({
    queryKey: ['library', 'topic news', tag] as const,
    queryFn: () => request<TopicNews>('GET', `/api/topics/news?${new URLSearchParams({ tag })}`),
  });
/** Tags whose pages of mine lead to an annotation or source. */
export const useLeadingTopics = (to: string, enabled = true) =>
  useQuery({
    enabled,
    queryKey: keys.leading(to),
    queryFn: () => request<string[]>('GET', `/api/links/topics?${new URLSearchParams({ to })}`),
  });
/** What links to an annotation or source, by its address in notes. */
export const useLinks = (to: string, enabled = true) =>
  useQuery({
    enabled,
    queryKey: keys.links(to),
    queryFn: () => request<Linked[]>('GET', `/api/links?${new URLSearchParams({ to })}`),
  });
export const useDesk = () =>
  useQuery({ queryKey: keys.desk, queryFn: () => request<Desk>('GET', `/api/desk?${new URLSearchParams(here())}`) });
export const useJobs = () => useQuery({ queryKey: keys.jobs, queryFn: () => request<Job[]>('GET', '/api/jobs') });
export const useArrivals = () =>
  useQuery({ queryKey: keys.arrivals, queryFn: () => request<Arrival[]>('GET', '/api/arrivals') });
export const useLists = () => useQuery({ queryKey: keys.lists, queryFn: () => request<Batch[]>('GET', '/api/lists') });
export const useFeeds = () => useQuery({ queryKey: keys.feeds, queryFn: () => request<Feed[]>('GET', '/api/feeds') });
export const useIntake = () =>
  useQuery({ queryKey: keys.intake, queryFn: () => request<Intake>('GET', '/api/intake') });
export const useDraft = (id: string) =>
  useQuery({ queryKey: keys.draft(id), queryFn: () => request<Draft>('GET', `/api/drafts/${id}`), retry: false });
