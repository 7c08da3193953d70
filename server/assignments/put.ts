import { startingKind } from '@avrelle/core/legend';
import type { Assignment, AssignmentFields, AssignmentPut, Me, PublishAgain } from '@avrelle/core/wire';
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

/** Sets a reading, or changes what is set; the same again changes nothing. Throws `stale` where it was changed. */
export function putAssignment(context: Context, me: Me, place: Place, put: AssignmentPut): Assignment {
  const { db, events, now } = context;
  return db.transaction(() => {
    addSourceTo(context, me, place.classId, place.sourceId);
    mustNotBeArchived(db, place.classId);
    mustKnowKinds(context, place, put);
    mustKnowGroups(context, me, place, put);
    const before = storedAssignment(db, place);
    const standing = standingOf(put, before, now());
    if (!before) insertAssignment(db, place, put, { ...standing, me: me.id, now: now() });
    else {
      const current = assignmentOf(context, me, place);
      if (put.version === undefined && isSame(current, put)) return current;
      if (put.version !== before.version)
        throw new AppError('stale', { yours: put.version ?? 'none', current: before.version }, { current });
      updateAssignment(db, place, put, standing);
    }
    // Before it was open nobody saw what it was.
    if (before && (put.publish || before.isOpen === 0))
      publish(db, place, { now: now(), more: before.isOpen === 0 ? 0 : 1, lookAgain: put.lookAgain });
    if (put.publish) tellClass(context, place, me.id);
    events.append({ type: 'classes', ...place });
    if (put.othersSeen === 'after_own') noteOwnOfAll(context, place, put.marks);
    return assignmentOf(context, me, place);
  });
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
  JSON.stringify(there.groups.map(({ id }) => id).toSorted()) === JSON.stringify(put.groupIds.toSorted()) &&
  there.expected.answers === put.answers &&
  JSON.stringify(there.expected.marks.map(({ kind, count }) => [kind, count])) ===
    JSON.stringify(put.marks.map(({ kind, count }) => [kind, count]));
