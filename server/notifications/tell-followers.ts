import type { AnnotationId, PersonId } from '@avrelle/core/wire';
import { viewersOf } from '../annotations/queries';
import { tellEach } from '../annotations/tell';
import type { Db } from '../db/database';
import type { Writing } from '../writing';
import { followersOf } from './follow-queries';

/** Who follows what an annotation stands in, and sees it. */
export function followersSeeing(db: Db, id: AnnotationId): ReadonlySet<PersonId> {
  const followers = followersOf(db, id);
  if (followers.length === 0) return new Set();
  const viewers = new Set(viewersOf(db, id));
  return new Set(followers.filter((person) => viewers.has(person)));
}

/**
 * Tells of something new, or newly for others, all who follow it and did not see it before. Call within a transaction,
 * after those were told whom it answers or means: they are told once.
 */
export function tellFollowers(
  world: Writing,
  id: AnnotationId,
  author: PersonId,
  before: ReadonlySet<PersonId> = new Set(),
): void {
  const told = [...followersSeeing(world.db, id)].filter((person) => person !== author && !before.has(person));
  tellEach(world, id, told);
}
