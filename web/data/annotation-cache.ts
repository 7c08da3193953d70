import type { QueryClient } from '@tanstack/react-query';
import type { Annotation, SourceId } from '@avrelle/core/wire';
import { keys } from './queries';
import { withOwn } from './under-way';

const NONE: readonly Annotation[] = [];

/** What is known of the annotations of a source. */
export const annotationsIn = (client: QueryClient, sourceId: SourceId): readonly Annotation[] =>
  client.getQueryData<readonly Annotation[]>(keys.annotations(sourceId)) ?? NONE;

/** Puts an annotation into the list of its source, in place of an older version of itself. */
export function upsert(list: readonly Annotation[], annotation: Annotation): readonly Annotation[] {
  const at = list.findIndex((a) => a.id === annotation.id);
  if (at < 0) return [...list, annotation];
  if (list[at]!.version > annotation.version) return list;
  return list.map((a, i) => (i === at ? annotation : a));
}

/** Takes an annotation and what hangs on it out of the list. */
export const without = (list: readonly Annotation[], id: string): readonly Annotation[] =>
  list.filter((a) => a.id !== id && a.rootId !== id);

export function showAnnotation(client: QueryClient, told: Annotation): void {
  const annotation = withOwn(told);
  if (!annotation) return hideAnnotation(client, told.sourceId, told.id);
  client.setQueryData<readonly Annotation[]>(
    keys.annotations(annotation.sourceId),
    (list) => list && upsert(list, annotation),
  );
}

export function hideAnnotation(client: QueryClient, sourceId: SourceId, id: string): void {
  client.setQueryData<readonly Annotation[]>(keys.annotations(sourceId), (list) => list && without(list, id));
}
