import type { SourceDetail, SourceText } from '@avrelle/core/wire';
import { request } from './api';
import { annotationsQuery, classesQuery, client, keys, sourceQuery, welcomeQuery } from './queries';

/** What the address at hand will ask for is asked for at once, while the code that shows it is still on its way. */
export function begin({ pathname, search }: Location): void {
  const id = /^\/source\/([0-9a-f-]{36})$/.exec(pathname)?.[1];
  if (!id || new URLSearchParams(search).has('version')) return;
  void import('../reader/ReaderPage').catch(() => undefined);
  void client.prefetchQuery(welcomeQuery);
  void client.prefetchQuery(classesQuery);
  const text = request<SourceText>('GET', `/api/sources/${id}/text`);
  text.catch(() => undefined);
  client.fetchQuery<SourceDetail>(sourceQuery(id)).then(({ versionId, kind }) => {
    // Many of them take a while; one can read meanwhile.
    void client.prefetchQuery(annotationsQuery(id));
    void client.prefetchQuery({ queryKey: keys.text(id, versionId), queryFn: () => text, staleTime: Infinity });
    // The frame will find it in the browser's cache.
    if (kind !== 'pdf') void fetch(`/snapshots/${versionId}/`).catch(() => undefined);
  }).catch(() => undefined);
}
