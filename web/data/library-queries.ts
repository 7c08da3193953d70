import { useQuery } from '@tanstack/react-query';
import { call } from './call';
import { here } from './find-queries';
import { keys } from './keys';

export const useOutline = (enabled = true) =>
  useQuery({ enabled, queryKey: keys.outline, queryFn: () => call('GET /api/library', { query: here() }) });
export const useCollection = (id: string) =>
  useQuery({
    queryKey: keys.collection(id),
    queryFn: () => call('GET /api/collections/:id', { params: { id } }),
  });
export const useDeleted = (enabled: boolean) =>
  useQuery({ queryKey: keys.deleted, queryFn: () => call('GET /api/sources/deleted'), enabled });

export const useTags = () => useQuery({ queryKey: keys.tags, queryFn: () => call('GET /api/tags') });
export const useTints = (enabled: boolean) =>
  useQuery({ queryKey: keys.tints, queryFn: () => call('GET /api/tags/tints'), staleTime: Infinity, enabled });

export const useTopic = (tag: string) =>
  useQuery({
    queryKey: keys.topic(tag),
    queryFn: () => call('GET /api/topics', { query: { tag } }),
    staleTime: Infinity,
  });
/** What has a tag only since one last wrote about it. */
export const useTopicNews = (tag: string) =>
  useQuery({
    queryKey: ['library', 'topic news', tag] as const,
    queryFn: () => call('GET /api/topics/news', { query: { tag } }),
  });
/** Tags whose pages of mine lead to an annotation or source. */
export const useLeadingTopics = (to: string, enabled = true) =>
  useQuery({ enabled, queryKey: keys.leading(to), queryFn: () => call('GET /api/links/topics', { query: { to } }) });
/** What links to an annotation or source, by its address in notes. */
export const useLinks = (to: string, enabled = true) =>
  useQuery({ enabled, queryKey: keys.links(to), queryFn: () => call('GET /api/links', { query: { to } }) });
