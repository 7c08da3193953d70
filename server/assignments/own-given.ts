import { gaveOwn } from '@avrelle/core/class';
import type { PersonId, SourceId } from '@avrelle/core/wire';
import type { Context } from '../context';
import { giveOwn, marksIn, waitingForOwn } from './queries';
import { tallyOf } from './tally';

type World = Pick<Context, 'db' | 'now' | 'events'>;

/** Where somebody has given their own by now, and that opens what the others gave, it is opened to them. */
export function noteOwn({ db, now, events }: World, me: PersonId, sourceId: SourceId): void {
  for (const row of waitingForOwn(db, me, sourceId)) {
    const { classId } = row;
    const done = tallyOf(db, { classId, sourceId, personId: me }).done(sourceId, me);
    if (!gaveOwn({ marks: marksIn(row), answers: row.answers }, done)) continue;
    giveOwn(db, { classId, sourceId }, me, now());
    // What they see by their classes has changed, for them alone.
    events.append({ type: 'classes', personId: me });
  }
}
