import { startingKind } from '@avrelle/core/legend';
import type { Assignment, AssignmentFields, AssignmentPut, Me, PublishAgain } from '@avrelle/core/wire';
import { mustBe } from '../access/access';
import { mustNotBeArchived } from '../classes/archived';
import { addSourceTo } from '../classes/readings';
import type { Context } from '../context';
import { tellClass } from '../notifications/tell-class';
import { AppError } from '../errors';
import { groupsFor } from '../groups/queries';
import { kindsOf } from '../legend/queries';
import { assignmentsOf } from './assignments';
import { noteOwnOfAll } from './own-given';
import {
  insertAssignment,
  publish,
  storedAssignment,
  updateAssignment,
  type Place,
  type Standing,
  type Stored,
} from './queries';
import { readApart, readTogether } from './together';

/**
 * Sets a reading, or changes what is set; the same again changes nothing. Throws `stale` where it was changed, and
 * `set_already` where it is set otherwise in a further class it shall be set for: then it is set nowhere.
 */
export function putAssignment(context: Context, me: Me, place: Place, put: AssignmentPut): Assignment {
  const { alsoIn, together, ...first } = put;
  const others = [...new Set(alsoIn)].filter((classId) => classId !== place.classId);
  return context.db.transaction(() => {
    putOne(context, me, place, first);
    for (const classId of others) putAlso(context, me, { ...place, classId }, first);
    if (together) readTogether(context, place, others);
    else readApart(context, place);
    return assignmentOf(context, me, place);
  });
}

type InOne = Omit<AssignmentPut, 'alsoIn' | 'together'>;

/** In a further class, for the whole of it. */
function putAlso(context: Context, me: Me, place: Place, put: InOne): void {
  const { db } = context;
  mustBe(db, me.id, { thing: 'class', as: 'assistant', to: 'set a reading' }, place.classId);
  const { version: _version, ...whole } = { ...put, groupIds: [] };
  const there = storedAssignment(db, place) && assignmentOf(context, me, place);
  if (there && !isSame(there, whole))
    throw new AppError('set_already', { className: there.class.name }, { field: 'alsoIn' });
  putOne(context, me, place, whole);
}

function putOne(context: Context, me: Me, place: Place, put: InOne): void {
  const { db, events, now } = context;
  addSourceTo(context, me, place.classId, place.sourceId);
  mustNotBeArchived(db, place.classId);
  mustKnowKinds(context, place, put);
  mustKnowGroups(context, me, place, put);
  const before = storedAssignment(db, place);
  const standing = standingOf(put, before, now());
  if (!before) insertAssignment(db, place, put, { ...standing, me: me.id, now: now() });
  else {
    const current = assignmentOf(context, me, place);
    if (put.version === undefined && isSame(current, put)) return;
    if (put.version !== before.version)
      throw new AppError('stale', { yours: put.version ?? 'none', current: before.version }, { current });
    updateAssignment(db, place, put, standing);
    publishChange(context, place, put, before);
  }
  if (put.publish) tellClass(context, place, me.id);
  events.append({ type: 'classes', ...place });
  if (put.othersSeen === 'after_own') noteOwnOfAll(context, place, put.marks);
}

/** Before it was open nobody saw what it was: then it is published as it stands, whatever is said. */
function publishChange({ db, now }: Context, place: Place, { publish: again, lookAgain }: InOne, before: Stored): void {
  const unseen = before.isOpen === 0;
  if (again || unseen) publish(db, place, { now: now(), more: unseen ? 0 : 1, lookAgain });
}

/**
 * Publishes what is set anew: what has changed until now is no longer told as such, and the class is told. Where it was
 * published meanwhile by somebody else, nothing happens.
 */
export function publishAgain(context: Context, me: Me, place: Place, { number, lookAgain }: PublishAgain): Assignment {
  const { db, events, now } = context;
  return db.transaction(() => {
    mustNotBeArchived(db, place.classId);
    const before = storedAssignment(db, place);
    if (before?.publishedNumber === number) {
      publish(db, place, { now: now(), more: 1, lookAgain });
      tellClass(context, place, me.id);
      events.append({ type: 'classes', ...place });
    }
    return assignmentOf(context, me, place);
  });
}

export const assignmentOf = ({ db }: Pick<Context, 'db'>, me: Me, place: Place): Assignment => {
  const [found] = assignmentsOf(db, me.id, place);
  if (!found) throw new AppError('not_found', { what: 'reading' });
  return found;
};

/** What was shown stays shown, after the due date until another date is set that is to come. */
export function standingOf(
  { opensAt, dueAt, othersSeen }: AssignmentFields,
  before: Stored | undefined,
  now: string,
): Standing {
  const isOpen = opensAt === null || opensAt <= now;
  const shownAt = before?.othersSeen === othersSeen ? before.shownAt : null;
  if (othersSeen !== 'after_due') return { isOpen, shownAt };
  return { isOpen, shownAt: dueAt !== null && dueAt <= now ? (shownAt ?? now) : null };
}

function mustKnowKinds({ db }: Pick<Context, 'db'>, { classId }: Place, { marks }: AssignmentFields): void {
  const own = new Set(kindsOf(db, classId, []).map(({ code }) => code));
  for (const { kind } of marks)
    if (kind !== null && !own.has(kind) && !startingKind(kind)) throw new AppError('unknown_kind', { code: kind });
}

function mustKnowGroups({ db }: Pick<Context, 'db'>, me: Me, { classId }: Place, { groupIds }: AssignmentFields): void {
  const found = groupsFor(db, me.id, groupIds).filter((group) => group.classId === classId);
  if (found.length < new Set(groupIds).size) throw new AppError('not_in_group', {}, { field: 'groupIds' });
}

const isSame = (there: Assignment, put: AssignmentFields): boolean =>
  there.instructions === put.instructions &&
  there.opensAt === put.opensAt &&
  there.dueAt === put.dueAt &&
  there.othersSeen === put.othersSeen &&
  there.comments === put.comments &&
  there.questions === put.questions &&
  there.inOrder === put.inOrder &&
  JSON.stringify(there.groups.map(({ id }) => id).toSorted()) === JSON.stringify(put.groupIds.toSorted()) &&
  there.expected.answers === put.answers &&
  JSON.stringify(there.expected.marks.map(({ kind, count }) => [kind, count])) ===
    JSON.stringify(put.marks.map(({ kind, count }) => [kind, count]));
