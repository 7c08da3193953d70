import type { ClassRole, Me } from '@avrelle/core/wire';
import type { Context } from '../context';
import { AppError } from '../errors';
import { canRead, ownerOf } from '../sources/queries';
import { addClassSource, removeClassSource, roleIn, sourceAddedBy } from './queries';

/** Lets a class read a source; false where it reads it already. Who does not own the source has to teach the class. */
export function addSourceTo({ db, events, now }: Context, me: Me, classId: string, sourceId: string): boolean {
  const role = roleIn(db, classId, me.id);
  if (!role) throw new AppError('not_in_class');
  if (!canRead(db, me.id, sourceId)) throw new AppError('not_found', { what: 'source' });
  if (ownerOf(db, sourceId)?.id !== me.id) mustTeach(role, 'share it, or keep a copy of your own');
  const added = addClassSource(db, classId, sourceId, me.id, now());
  if (added) events.append({ type: 'classes', classId, sourceId });
  return added;
}

/** Takes it from a class's readings; false where it was not among them. Who did not put it there has to teach the class. */
export function takeSourceFrom({ db, events }: Context, me: Me, classId: string, sourceId: string): boolean {
  const role = roleIn(db, classId, me.id);
  if (!role) throw new AppError('not_in_class');
  if (sourceAddedBy(db, classId, sourceId) !== me.id) mustTeach(role, 'take the source out');
  const removed = removeClassSource(db, classId, sourceId);
  if (removed) events.append({ type: 'classes', classId, sourceId });
  return removed;
}

export function mustTeach(role: ClassRole | undefined, action: string): void {
  if (!role) throw new AppError('not_found', { what: 'class' });
  if (role === 'student') throw new AppError('teachers_only', { role, action });
}
