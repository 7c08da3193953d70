import { allOf, type ForClass } from '@avrelle/core/audience';
import type { AnnotationId, ClassId, PersonId } from '@avrelle/core/wire';
import { nameAudience } from '../annotations/queries';
import { tellOf } from '../annotations/tell';
import { classLabel } from '../classes/queries';
import { AppError } from '../errors';
import { peopleMeant } from '../notes/queries';
import type { Writing } from '../writing';
import {
  dueReleases,
  heldOf,
  holdAgain,
  insertRelease,
  isReleaseDue,
  readersOf,
  releasedOf,
  studentsSeeing,
  tellRelease,
  type Released,
  type Some,
} from './queries';

interface Where {
  readonly classId: ClassId;
  /** Null where its time has come. */
  readonly by: PersonId | null;
}

/**
 * Shows to the students of a class what is held there of some annotations; what is not held any more is left as it is.
 * Each student who sees something of it is told once, and who is meant in it is told of that. Returns how many were
 * released. Call within a transaction.
 */
export function release(world: Writing, { classId, by }: Where, annotationIds: readonly AnnotationId[]): number {
  const held = heldOf(world.db, { classId, annotationIds });
  for (const sourceId of new Set(held.map((one) => one.sourceId))) {
    const some = held.filter((one) => one.sourceId === sourceId);
    const released: Some = { classId, annotationIds: some.map((one) => one.annotationId) };
    const id = world.newId();
    insertRelease(world.db, released, { id, sourceId, by, now: world.now() });
    tellChanged(world, classId, some, []);
    tellStudents(world, released, id);
  }
  return held.length;
}

/** Releases what time has come for, once; false where there was nothing. Call within a transaction. */
export function releaseDue(world: Writing, now: string): boolean {
  if (!isReleaseDue(world.db, now)) return false;
  for (const { classId, annotationIds } of dueReleases(world.db, now))
    release(world, { classId, by: null }, annotationIds);
  return true;
}

/**
 * Holds again what was released, as long as no student has had any of it before their eyes. Throws `read_already` with
 * nothing changed. Call within a transaction.
 */
export function takeBack(world: Writing, classId: ClassId, annotationIds: readonly AnnotationId[]): number {
  const released = releasedOf(world.db, { classId, annotationIds });
  if (released.length === 0) return 0;
  const some = { classId, annotationIds: released.map((one) => one.annotationId) };
  const people = readersOf(world.db, some);
  if (people > 0)
    throw new AppError('read_already', {
      people: people === 1 ? 'One student' : `${people} students`,
      className: classLabel(world.db, classId)?.name ?? '',
    });
  holdAgain(world.db, some);
  tellChanged(world, classId, released, [allOf(classId)]);
  world.events.append({ type: 'desk', classId });
  return released.length;
}

/** Open pages show it; those of a class that saw it before show it no longer. */
function tellChanged(
  { db, events }: Writing,
  classId: ClassId,
  some: readonly Released[],
  formerClasses: readonly ForClass[],
): void {
  for (const { annotationId, sourceId, authorId } of some) {
    nameAudience(db, annotationId);
    events.append({ type: 'annotation', annotationId, sourceId, personId: authorId, formerClasses });
  }
  events.append({ type: 'classes', classId });
}

function tellStudents(world: Writing, some: Some, releaseId: string): void {
  const { db, events, now, newId } = world;
  for (const person of studentsSeeing(db, some))
    tellRelease(db, { id: newId(), person, release: releaseId, now: now() });
  events.append({ type: 'desk', classId: some.classId });
  for (const { annotationId, authorId } of releasedOf(db, some))
    tellOf(world, annotationId, peopleMeant(db, annotationId), authorId);
}
