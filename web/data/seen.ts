import type { AnnotationId, PersonId } from '@avrelle/core/wire';
import { call } from './call';

/** What was seen is told together, so long after the first of it, in milliseconds. */
const TELL_AFTER = 1_000;

/** Told in this window, or waiting to be, by whom; the server keeps it. */
const seen = new Set<string>();
const waiting = new Set<AnnotationId>();
let reader: PersonId | undefined;
let timer: ReturnType<typeof setTimeout> | undefined;

/** Tells the server, once, that annotations of others have been before somebody's eyes. */
export function noteSeen(me: PersonId, ids: Iterable<AnnotationId>): void {
  // Whoever signs in after somebody else tells nothing for them.
  if (reader !== me) waiting.clear();
  reader = me;
  for (const id of ids) {
    if (seen.has(`${me} ${id}`)) continue;
    seen.add(`${me} ${id}`);
    waiting.add(id);
    timer ??= setTimeout(tell, TELL_AFTER);
  }
}

function tell(): void {
  timer = undefined;
  const [by, annotationIds] = [reader, [...waiting]];
  waiting.clear();
  if (annotationIds.length === 0) return;
  // What could not be told is told with what is seen next.
  call('POST /api/annotations/seen', { body: { annotationIds } }).catch(() => {
    if (by === reader) for (const id of annotationIds) waiting.add(id);
  });
}
