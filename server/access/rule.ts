import type { OthersSeen } from '@avrelle/core/wire';

/**
 * Who sees what, in plain words. The views in the database (`source_visible`, `annotation_visible`,
 * `collection_visible`) and the conditions in `visible-queries.ts` give the same answers for thousands of rows at once;
 * a test holds them to this on worlds made at random.
 */
export interface World {
  readonly members: readonly {
    readonly classId: string;
    readonly personId: string;
    readonly teaches: boolean;
    readonly groupId: string | null;
  }[];
  readonly sources: readonly { readonly id: string; readonly ownerId: string; readonly deleted: boolean }[];
  /** Which class reads which source. */
  readonly readings: readonly { readonly classId: string; readonly sourceId: string }[];
  /** What of it is set. */
  readonly assignments: readonly AssignmentInWorld[];
  readonly annotations: readonly AnnotationInWorld[];
}

export interface AssignmentInWorld {
  readonly classId: string;
  readonly sourceId: string;
  /** For which of its groups it is set; none: for all. */
  readonly groupIds: readonly string[];
  readonly isOpen: boolean;
  readonly othersSeen: OthersSeen;
  /** Whether its due date is past, or it was released. */
  readonly shown: boolean;
  /** Who gave their own. */
  readonly given: readonly string[];
  /** Who has more time, which is not over. */
  readonly extended: readonly string[];
}

export interface AnnotationInWorld {
  readonly id: string;
  readonly authorId: string;
  readonly sourceId: string;
  /** What it answers, at the beginning of its thread; null for one that stands in the text. */
  readonly rootId: string | null;
  /** For whom it is besides its author; none: only for them. */
  readonly classIds: readonly string[];
  /** In which of these it is for who teaches alone, or is held. */
  readonly teachersOnlyIn: readonly string[];
  readonly heldIn: readonly string[];
  /** Of these classes, the group it is for, where it is not for all of the class. */
  readonly groups: Readonly<Record<string, string>>;
  /** Where somebody who teaches has hidden it. */
  readonly hiddenIn: readonly string[];
  readonly deleted: boolean;
}

const membership = ({ members }: World, me: string, classId: string) =>
  members.find((m) => m.classId === classId && m.personId === me);
/** What is set for a student: what is set for other groups is not. */
function setFor(world: World, me: string, classId: string, sourceId: string): AssignmentInWorld | undefined {
  const set = world.assignments.find((g) => g.classId === classId && g.sourceId === sourceId);
  const group = membership(world, me, classId)?.groupId ?? '';
  return set && (set.groupIds.length === 0 || set.groupIds.includes(group)) ? set : undefined;
}

/** Somebody reads a source by a class that they are in and that reads it: as a student, only from when it opens. */
function readsBy(world: World, me: string, classId: string, sourceId: string): boolean {
  const member = membership(world, me, classId);
  const isRead = world.readings.some((r) => r.classId === classId && r.sourceId === sourceId);
  return isRead && member !== undefined && (member.teaches || setFor(world, me, classId, sourceId)?.isOpen !== false);
}

/** A source is seen by its owner and by whoever reads it by a class, as long as it is not deleted. */
export function seesSource(world: World, me: string, sourceId: string): boolean {
  const source = world.sources.find((s) => s.id === sourceId);
  if (!source || source.deleted) return false;
  return source.ownerId === me || world.members.some((m) => readsBy(world, me, m.classId, sourceId));
}

/** What students wrote for a class is withheld from a student until what is set for the reading has come. */
function isWithheld(world: World, me: string, classId: string, sourceId: string): boolean {
  const set = setFor(world, me, classId, sourceId);
  if (!set || membership(world, me, classId)?.teaches) return false;
  switch (set.othersSeen) {
    case 'at_once':
      return false;
    case 'after_own':
      return !set.given.includes(me);
    case 'after_due':
      return !set.shown || set.extended.includes(me);
    case 'after_release':
      return !set.shown;
  }
}

/**
 * An annotation that is not deleted is always seen by its author. Others see it by a class it is for, by which they read
 * its source: who teaches there, always; students, where it is neither held nor hidden, nor for the teachers alone or
 * another group (but for answers to what they wrote), and nothing is withheld from them or a teacher of the class wrote
 * it. An answer is seen only where what it answers is seen, too, even if that has been deleted since.
 */
export function seesAnnotation(world: World, me: string, annotation: AnnotationInWorld): boolean {
  if (annotation.deleted) return false;
  if (annotation.authorId === me) return true;
  const source = world.sources.find((s) => s.id === annotation.sourceId)!;
  if (source.deleted || !isShownByAClass(world, me, annotation)) return false;
  const root = world.annotations.find((a) => a.id === annotation.rootId);
  return root === undefined || root.authorId === me || isShownByAClass(world, me, root);
}

function isShownByAClass(world: World, me: string, annotation: AnnotationInWorld): boolean {
  const { classIds, sourceId, authorId, teachersOnlyIn, heldIn, hiddenIn, groups, rootId } = annotation;
  const isToMe = world.annotations.find((a) => a.id === rootId)?.authorId === me;
  return classIds.some((classId) => {
    if (!readsBy(world, me, classId, sourceId)) return false;
    if (membership(world, me, classId)?.teaches) return true;
    if (heldIn.includes(classId) || hiddenIn.includes(classId)) return false;
    const isForGroup = [undefined, membership(world, me, classId)?.groupId].includes(groups[classId]);
    if ((teachersOnlyIn.includes(classId) || !isForGroup) && !isToMe) return false;
    return !isWithheld(world, me, classId, sourceId) || membership(world, authorId, classId)?.teaches === true;
  });
}
