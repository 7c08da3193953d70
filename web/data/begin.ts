import { call } from './call';
import { annotationsQuery, classesQuery, client, keys, sourceQuery, welcomeQuery } from './queries';

/** What the reading view of the source at hand will need is asked for at once, while its code is still on its way. */
export function begin({ pathname, search }: Location): void {
  const id = /^\/source\/([0-9a-f-]{36})$/.exec(pathname)?.[1];
  if (!id || new URLSearchParams(search).has('version')) return;
  void client.prefetchQuery(welcomeQuery);
  void client.prefetchQuery(classesQuery);
  const text = call('GET /api/sources/:id/text', { params: { id } });
  text.catch(() => undefined);
  client
    .fetchQuery(sourceQuery(id))
    .then(({ versionId }) => {
      // Many of them take a while; one can read meanwhile.
      void client.prefetchQuery(annotationsQuery(id));
      void client.prefetchQuery({ queryKey: keys.text(id, versionId), queryFn: () => text, staleTime: Infinity });
    })
    .catch(() => undefined);
}
