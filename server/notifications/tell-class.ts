import type { PersonId } from '@avrelle/core/wire';
import type { Writing } from '../writing';
import { studentsIn, tell, type InClass } from './told-queries';

/**
 * Tells somebody what happened in a class, or all its students. Each is told of one thing once: what happens again, as a
 * change of what is set, stands as new once more. Whether they may see it is asked when they look. Call within a
 * transaction, before the event of what happened.
 */
export function tellClass(
  { db, now, newId }: Pick<Writing, 'db' | 'now' | 'newId'>,
  what: InClass,
  by: PersonId,
  people: readonly PersonId[] = studentsIn(db, what.classId),
): void {
  for (const person of people) tell(db, { id: newId(), person, by, now: now() }, what);
}
