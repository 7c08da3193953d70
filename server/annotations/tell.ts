import type { AnnotationId, PersonId } from '@avrelle/core/wire';
import type { Writing } from '../writing';
import { annotationFor, insertNotification } from './queries';

/** Whoever is answered or meant is told of an annotation, once, and only if they may see it. */
export function tellOf(
  world: Writing,
  annotationId: AnnotationId,
  people: readonly PersonId[],
  except: PersonId,
): void {
  const { db, now, newId, events } = world;
  for (const personId of new Set(people)) {
    if (personId === except || !annotationFor(db, personId, annotationId)) continue;
    if (insertNotification(db, newId(), { personId, annotationId }, now())) events.append({ type: 'desk', personId });
  }
}
