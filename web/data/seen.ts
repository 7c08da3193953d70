import type { AnnotationId } from '@avrelle/core/wire';
import { call } from './call';

/** What was seen is told together, so long after the first of it, in milliseconds. */
const TELL_AFTER = 1_000;

/** Told in this window, or waiting to be; the server keeps it. */
const seen = new Set<AnnotationId>();
const waiting = new Set<AnnotationId>();
let timer: ReturnType<typeof setTimeout> | undefined;

/** Tells the server, once, that an annotation of somebody else has been before my eyes. */
export function noteSeen(id: AnnotationId): void {
  if (seen.has(id)) return;
  seen.add(id);
  waiting.add(id);
  timer ??= setTimeout(tell, TELL_AFTER);
}

function tell(): void {
  timer = undefined;
  const annotationIds = [...waiting];
  waiting.clear();
  // What could not be told is told with what is seen next.
  call('POST /api/annotations/seen', { body: { annotationIds } }).catch(() => {
    for (const id of annotationIds) waiting.add(id);
  });
}
