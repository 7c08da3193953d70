import type { ClassId } from '@avrelle/core/wire';
import { forClasses, nameAudience } from '../annotations/queries';
import type { Writing } from '../writing';
import { AppError } from '../errors';
import { classLabel } from '../classes/queries';
import type { Place } from './queries';
import { readingTogether, setTogether, standingIn, togetherOf } from './together-queries';

/**
 * Lets classes read together what is set for all of them: what is written for one of them stands in the others, too.
 * Throws `together_already` where one of the others reads it together with further classes. Call within a transaction.
 */
export function readTogether(world: Writing, place: Place, others: readonly ClassId[]): void {
  const { db, newId, now } = world;
  if (others.length === 0) return;
  const together = togetherOf(db, place) ?? newId();
  const places = [place, ...others.map((classId) => ({ ...place, classId }))];
  const changed = places.filter((one) => {
    const its = togetherOf(db, one);
    if (its !== null && its !== together)
      throw new AppError(
        'together_already',
        { className: classLabel(db, one.classId)?.name ?? '' },
        { field: 'alsoIn' },
      );
    return setTogether(db, one, together, now());
  });
  if (changed.length > 0) spreadAnew(world, places);
  for (const one of changed) world.events.append({ type: 'classes', ...one });
}

/** A class reads by itself again what it read together with others. Call within a transaction. */
export function readApart(world: Writing, place: Place): void {
  const others = readingTogether(world.db, place);
  if (!setTogether(world.db, place, null, world.now())) return;
  spreadAnew(world, [place]);
  for (const { id } of others) world.events.append({ type: 'classes', ...place, classId: id });
}

/** After what stands together in some classes has changed: each annotation there goes where it belongs now. */
export function spreadAnew({ db, events }: Writing, places: readonly Place[]): void {
  const ids = new Set(places.flatMap((place) => standingIn(db, place)));
  for (const annotationId of ids) {
    const formerClasses = forClasses(db, annotationId);
    nameAudience(db, annotationId);
    if (forClasses(db, annotationId).length === formerClasses.length) continue;
    events.append({ type: 'annotation', annotationId, sourceId: places[0]!.sourceId, formerClasses });
  }
}
