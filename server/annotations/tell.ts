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
  const others = [...new Set(people)].filter((personId) => personId !== except);
  tellEach(
    world,
    annotationId,
    others.filter((personId) => annotationFor(world.db, personId, annotationId)),
  );
}

/** Tells people, each once, who are known to see it. */
export function tellEach({ db, now, newId, events }: Writing, annotationId: AnnotationId, people: PersonId[]): void {
  for (const personId of people)
    if (insertNotification(db, newId(), { personId, annotationId }, now())) events.append({ type: 'desk', personId });
}
