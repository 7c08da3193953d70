import type { ClassId, Me, Walkthrough, WalkthroughId, WalkthroughPut } from '@avrelle/core/wire';
import { mustBe } from '../access/access';
import type { Context } from '../context';
import { AppError } from '../errors';
import {
  insertWalkthrough,
  setSteps,
  stepNotes,
  stepsOf,
  storedWalkthrough,
  updateWalkthrough,
  walkthroughRow,
} from './queries';

type World = Pick<Context, 'db' | 'now' | 'events'>;

/** Throws `not_found` where the class has none of that id. */
export function walkthroughOf({ db }: World, me: Me, classId: ClassId, id: WalkthroughId): Walkthrough {
  const row = walkthroughRow(db, classId, id);
  if (!row) throw new AppError('not_found', { what: 'walkthrough' });
  const steps = stepsOf(db, id);
  const ids = steps.map(({ annotationId }) => annotationId);
  const notes = stepNotes(db, me.id, classId, ids);
  return { ...row, classId, steps: steps.map((step) => ({ ...step, note: notes.get(step.annotationId) ?? null })) };
}

interface Where {
  readonly classId: ClassId;
  readonly id: WalkthroughId;
}

/** Makes or changes it; sent again, it changes nothing. Throws `stale`, or `not_found` for a note one does not see. */
export function putWalkthrough(world: World, me: Me, { classId, id }: Where, put: WalkthroughPut): Walkthrough {
  const { db, now, events } = world;
  return db.transaction(() => {
    const before = storedWalkthrough(db, id);
    if (before && (before.classId !== classId || before.deletedAt !== null))
      throw new AppError('not_found', { what: 'walkthrough' });
    const current = before && walkthroughOf(world, me, classId, id);
    if (current && isSame(current, put)) return current;
    if (current && put.version !== current.version)
      throw new AppError('stale', { yours: put.version, current: current.version }, { current });
    mustSee(world, me, { classId, id }, put);
    if (before) updateWalkthrough(db, id, put.name, now());
    else insertWalkthrough(db, { id, classId, name: put.name }, { me: me.id, now: now() });
    setSteps(db, id, put.steps);
    events.append({ type: 'walkthroughs', classId });
    return walkthroughOf(world, me, classId, id);
  });
}

/** What stands in it already may stay, whoever sees it. */
function mustSee({ db }: World, me: Me, { classId, id }: Where, { steps }: WalkthroughPut): void {
  const there = new Set(stepsOf(db, id).map(({ annotationId }) => annotationId));
  const added = steps.map(({ annotationId }) => annotationId).filter((one) => !there.has(one));
  if (stepNotes(db, me.id, classId, added).size < added.length) throw new AppError('not_found', { what: 'annotation' });
}

const isSame = (there: Walkthrough, put: WalkthroughPut): boolean =>
  there.name === put.name &&
  there.steps.length === put.steps.length &&
  there.steps.every(
    ({ annotationId, words }, at) => annotationId === put.steps[at]!.annotationId && words === put.steps[at]!.words,
  );

/** The same steps for another class; those of its notes that it does not see are told as such. */
export function copyWalkthrough(world: World, me: Me, from: Where, to: Where): Walkthrough {
  mustBe(world.db, me.id, { thing: 'class', as: 'assistant', to: 'make a walkthrough' }, to.classId);
  return world.db.transaction(() => {
    const { name, steps } = walkthroughOf(world, me, from.classId, from.id);
    const seen = steps.filter(({ note }) => note !== null);
    return putWalkthrough(world, me, to, {
      version: 0,
      name,
      steps: seen.map(({ annotationId, words }) => ({ annotationId, words })),
    });
  });
}
