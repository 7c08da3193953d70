import type { ForClass } from '@avrelle/core/audience';
import type { AnnotationPatch, ClassId, GroupId, Me, SourceId } from '@avrelle/core/wire';
import { mustBe } from '../access/access';
import { isMember } from '../access/access-queries';
import { commentsClosed } from '../assignments/queries';
import { mustNotBeArchived } from '../classes/archived';
import { classLabel, sourceAddedBy } from '../classes/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { groupsFor } from '../groups/queries';
import { release } from '../held/release';
import { forClasses, repliesOf, setClasses, type AnnotationRow, type StoredForClass } from './queries';

type ForWhom = Pick<AnnotationPatch, 'teachersOnly' | 'held'>;

/** What is for the teachers alone has nothing to be held from anybody. */
const forWhomIn = ({ teachersOnly = false, held = false }: ForWhom): Pick<ForClass, 'teachersOnly' | 'held'> => ({
  teachersOnly,
  held: held && !teachersOnly,
});

/** For whom something new is. */
export const newAudience = (
  context: Context,
  me: Me,
  {
    classIds,
    groupIds,
    ...forWhom
  }: Pick<AnnotationPatch, 'groupIds'> & ForWhom & { readonly classIds: readonly ClassId[] },
): readonly ForClass[] => {
  const groups = groupsIn(context, me, classIds, groupIds);
  return classIds.map((classId) => ({ classId, ...forWhomIn(forWhom), groupId: groups?.get(classId) ?? null }));
};

/** By class; undefined where nothing is said of groups. Throws `not_in_group`. */
function groupsIn(
  { db }: Context,
  me: Me,
  classIds: readonly ClassId[],
  groupIds: readonly GroupId[] | undefined,
): ReadonlyMap<ClassId, GroupId> | undefined {
  if (groupIds === undefined) return undefined;
  const found = groupsFor(db, me.id, groupIds).filter(({ mine, classId }) => mine === 1 && classIds.includes(classId));
  if (found.length < new Set(groupIds).size) throw new AppError('not_in_group', {}, { field: 'groupIds' });
  const byClass = new Map(found.map(({ classId, id }) => [classId, id]));
  if (byClass.size < found.length)
    throw new AppError(
      'invalid',
      { message: 'A note is for one group of a class, or for all of it.' },
      { field: 'groupIds' },
    );
  return byClass;
}

/**
 * The same annotation for other people: never a copy. Replies that some no longer see are told of, too. A class that is
 * new to it holds it where the others do; what is no longer held is released.
 */
export function changeAudience(context: Context, me: Me, before: AnnotationRow, patch: AnnotationPatch): void {
  if ([patch.classIds, patch.teachersOnly, patch.held, patch.groupIds].every((said) => said === undefined)) return;
  const { db, events } = context;
  const former = forClasses(db, before.id);
  const there = new Map(former.map((one) => [one.classId, one]));
  const whole = forWhomIn({
    teachersOnly: patch.teachersOnly ?? former.some((c) => c.teachersOnly),
    held: patch.held ?? former.some((c) => c.held),
  });
  const chosen = new Set(former.filter((one) => one.fromClass === null).map((one) => one.classId));
  const classIds = patch.classIds ?? [...chosen];
  const groups = groupsIn(context, me, classIds, patch.groupIds);
  const classes = classIds.map((classId) => {
    const was = there.get(classId);
    // By itself a change of classes changes nothing where it was; what shall be shown is released below.
    const held = was && patch.held !== true ? was.held && !whole.teachersOnly : whole.held;
    const groupId = (groups ? groups.get(classId) : was?.groupId) ?? null;
    return { classId, teachersOnly: whole.teachersOnly, held, groupId, ...keptOf(was, held) };
  });
  // What is hidden stays with the teachers, where it was: else giving it to the class anew would show it. What came by
  // another class stays for now, too: it goes by what is chosen.
  const kept = former.filter(
    (c) => (c.hidden || c.fromClass !== null) && !classes.some(({ classId }) => classId === c.classId),
  );
  checkAudience(context, me, { sourceId: before.sourceId, before: there }, classes);
  const added = classes.map(({ classId }) => classId).filter((classId) => !chosen.has(classId));
  mustBeOpen(context, me, before.sourceId, added);
  setClasses(db, before.id, [...classes, ...kept]);
  if (patch.held === false)
    for (const { classId, held } of classes) if (held) release(context, { classId, by: me.id }, [before.id]);
  for (const reply of repliesOf(db, before.id))
    events.append({
      type: 'annotation',
      annotationId: reply,
      sourceId: before.sourceId,
      formerClasses: former,
    });
}

/** What stays of what was said of a class: until when it is held, or by what it was released; and that it is hidden. */
function keptOf(was: StoredForClass | undefined, held: boolean): Partial<StoredForClass> {
  if (!was) return {};
  const { releaseAt, releaseId, hiddenReason, hiddenBy } = was;
  return { hiddenReason, hiddenBy, ...(held ? { releaseAt } : { releaseId }) };
}

/** Throws where a class is among them for which nothing may be written now. */
export function mustBeOpen({ db }: Context, me: Me, sourceId: SourceId, classIds: readonly ClassId[]): void {
  for (const classId of classIds) mustNotBeArchived(db, classId);
  const closed = classIds.find((classId) => commentsClosed(db, { classId, sourceId }, me.id));
  if (closed !== undefined)
    throw new AppError('comments_closed', { className: classLabel(db, closed)?.name ?? '' }, { field: 'classIds' });
}

/** Only who teaches a class may hold anything there; where it was so `before`, nothing is asked anew. */
export function checkAudience(
  { db }: Context,
  me: Me,
  { sourceId, before }: { readonly sourceId: SourceId; readonly before?: ReadonlyMap<ClassId, ForClass> },
  classes: readonly ForClass[],
): void {
  for (const { classId, held } of classes) {
    if (!isMember(db, classId, me.id)) throw new AppError('not_in_class');
    if (sourceAddedBy(db, classId, sourceId) === undefined)
      throw new AppError('source_not_in_class', { className: classLabel(db, classId)?.name ?? '' });
    if (held && before?.get(classId)?.held !== true)
      mustBe(db, me.id, { thing: 'class', as: 'assistant', to: 'hold back what is written' }, classId);
  }
}
