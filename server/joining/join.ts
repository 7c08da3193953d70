import type { AnnotationId, ClassId, ClassRole, Joining, PersonId } from '@avrelle/core/wire';
import { isMember } from '../access/access-queries';
import { joinClass } from '../classes/queries';
import type { Context } from '../context';
import { ask, forgetRequest } from './queries';

/** Who was not let in may ask again after a day. */
const AGAIN = 86_400_000;

interface Comer {
  readonly classId: ClassId;
  readonly personId: PersonId;
  readonly role?: ClassRole;
}

/** Takes somebody in; false where they are in already. What they asked before is settled by it. */
export function takeIn({ db, events, now }: Context, { classId, personId, role = 'student' }: Comer): boolean {
  const isNew = joinClass(db, { classId, personId, role }, now());
  const asked = forgetRequest(db, classId, personId) > 0;
  if (isNew || asked) events.append({ type: 'classes', classId });
  if (asked) events.append({ type: 'desk', classId });
  return isNew;
}

/** Puts somebody among those who wait; false where they do already, or were not let in a short while ago. */
export function askToJoin(
  { db, events, now, newId }: Context,
  { classId, personId }: Comer,
  annotationId: AnnotationId | null = null,
): boolean {
  const again = new Date(Date.parse(now()) - AGAIN).toISOString();
  const isNew = ask(db, { id: newId(), classId, personId, annotationId }, { now: now(), again });
  if (!isNew) return false;
  events.append({ type: 'classes', classId, personId });
  events.append({ type: 'desk', classId });
  return true;
}

/** Somebody comes with a code or a link: what became of it, and whether anything was changed. */
export function come(
  context: Context,
  comer: Comer,
  joining: Joining,
): { readonly joined: boolean; readonly isNew: boolean } {
  if (isMember(context.db, comer.classId, comer.personId)) return { joined: true, isNew: false };
  return joining === 'at_once'
    ? { joined: true, isNew: takeIn(context, comer) }
    : { joined: false, isNew: askToJoin(context, comer) };
}
