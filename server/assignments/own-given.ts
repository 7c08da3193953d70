import { gaveOwn, type ExpectedMarks } from '@avrelle/core/class';
import type { PersonId, SourceId } from '@avrelle/core/wire';
import type { Context } from '../context';
import { giveOwn, studentsOf, waitingForOwn, type Place } from './queries';
import { tallyOf } from './tally';

type World = Pick<Context, 'db' | 'now' | 'events'>;

/** Where somebody has given their own by now, and that opens what the others gave, it is opened to them. */
export function noteOwn(world: World, me: PersonId, sourceId: SourceId): void {
  for (const row of waitingForOwn(world.db, me, sourceId))
    openTo(world, { classId: row.classId, sourceId }, JSON.parse(row.marks) as ExpectedMarks[], [me]);
}

/** Some may have given their own before it was asked for. */
export function noteOwnOfAll(world: World, place: Place, marks: readonly ExpectedMarks[]): void {
  const students = studentsOf(world.db, place.classId).map(({ id }) => id);
  openTo(world, place, marks, students);
}

function openTo(
  { db, now, events }: World,
  place: Place,
  marks: readonly ExpectedMarks[],
  people: readonly PersonId[],
): void {
  const tally = tallyOf(db, { ...place, personId: people.length === 1 ? people[0]! : null });
  for (const personId of people) {
    if (!gaveOwn(marks, tally.done(place.sourceId, personId))) continue;
    // What they see by their classes has changed, for them alone.
    if (giveOwn(db, place, personId, now()) > 0) events.append({ type: 'classes', personId });
  }
}
