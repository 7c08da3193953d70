import type { Me, ClassId, PersonId, SourceId } from '@avrelle/core/wire';
import { can, mustBe, mustReadSource } from '../access/access';
import { isMember } from '../access/access-queries';
import type { Place } from '../assignments/queries';
import { spreadAnew } from '../assignments/together';
import { readingTogether } from '../assignments/together-queries';
import type { Context } from '../context';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { mustNotBeArchived } from './archived';
import { addClassSource, removeClassSource, sourceAddedBy } from './queries';

/** Lets a class read a source; false where it reads it already. Who does not own the source has to teach the class. */
export function addSourceTo(context: Context, me: Me, classId: ClassId, sourceId: SourceId): boolean {
  const { db, now } = context;
  if (!isMember(db, classId, me.id)) throw new AppError('not_in_class');
  mustReadSource(db, me.id, sourceId);
  if (!can(db, me.id, { thing: 'source', as: 'owner' }, sourceId))
    mustTeach(db, me.id, classId, 'share it, or keep a copy of your own');
  if (sourceAddedBy(db, classId, sourceId) !== undefined) return false;
  mustNotBeArchived(db, classId);
  const added = addClassSource(db, { classId, sourceId, personId: me.id }, now());
  if (added) tellReading(context, { classId, sourceId });
  return added;
}

/** Takes it from a class's readings; false where it was not among them. Who did not put it there has to teach the class. */
export function takeSourceFrom(context: Context, me: Me, classId: ClassId, sourceId: SourceId): boolean {
  const { db } = context;
  if (!isMember(db, classId, me.id)) throw new AppError('not_in_class');
  if (sourceAddedBy(db, classId, sourceId) !== me.id) mustTeach(db, me.id, classId, 'take the source out');
  mustNotBeArchived(db, classId);
  const removed = removeClassSource(db, classId, sourceId);
  if (removed) tellReading(context, { classId, sourceId });
  return removed;
}

/** What other classes read together with it stands there, or does no longer. */
function tellReading(context: Context, place: Place): void {
  const others = readingTogether(context.db, place).map(({ id }) => ({ ...place, classId: id }));
  if (others.length > 0) spreadAnew(context, [place, ...others]);
  context.events.append({ type: 'classes', ...place });
}

const mustTeach = (db: Db, me: PersonId, classId: ClassId, to: string): void =>
  mustBe(db, me, { thing: 'class', as: 'assistant', to }, classId);
