import type { ClassId, GroupId } from '../wire/ids';

/** Who an annotation is for: no class is only its author. One annotation may be for several classes. */
export interface Audience {
  readonly classIds: readonly ClassId[];
  /** Of these classes, only who teaches them. */
  readonly teachersOnly?: boolean;
  /** Kept from their students until it is released. */
  readonly held?: boolean;
  /** Of those of these classes that the groups are of, only the group and who teaches. */
  readonly groupIds?: readonly GroupId[];
}

/** A group of a class, as it is named. */
export interface NamedGroup {
  readonly id: GroupId;
  readonly name: string;
}

/** A class that something is for, and for whom in it. */
export interface ForClass {
  readonly classId: ClassId;
  readonly teachersOnly: boolean;
  /** Until it is released, only who teaches the class sees it. */
  readonly held: boolean;
  /** Only this group of it, and who teaches. */
  readonly groupId: GroupId | null;
  /** Hidden from its students by somebody who teaches there. */
  readonly hidden?: boolean;
}

/** Everybody in a class. */
export const allOf = (classId: ClassId): ForClass => ({
  classId,
  teachersOnly: false,
  held: false,
  groupId: null,
});

export const ONLY_ME: Audience = { classIds: [] };

/** A class as the audience names it. */
interface NamedClass {
  readonly id: ClassId;
  readonly name: string;
  readonly groups: readonly NamedGroup[];
}

/** The audience in words, e.g. "Only me", "Field Course A and Group 2 of Field Course B", "Teachers of Course B". */
export function audienceWords(audience: Audience, classes: readonly NamedClass[]): string {
  const names = audience.classIds.map((id) =>
    nameIn(
      audience,
      classes.find((c) => c.id === id),
    ),
  );
  if (names.length === 0) return 'Only me';
  const all = names.length === 1 ? names[0]! : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
  if (audience.teachersOnly) return `Teachers of ${all}`;
  return audience.held ? `${all}, held` : all;
}

function nameIn({ groupIds = [], teachersOnly }: Audience, of: NamedClass | undefined): string {
  if (!of) return 'another class';
  const group = teachersOnly ? undefined : of.groups.find(({ id }) => groupIds.includes(id));
  return group ? `${group.name} of ${of.name}` : of.name;
}

/**
 * An answer goes no further than what it answers: to those of its classes, and the groups of them, in which the writer
 * is too. What is written under something held stays with the teachers, whatever is released later.
 */
export const answerAudience = (root: readonly ForClass[], memberOf: ReadonlySet<string>): readonly ForClass[] =>
  root
    .filter(({ classId }) => memberOf.has(classId))
    .map(({ classId, teachersOnly, held, groupId }) => ({
      classId,
      teachersOnly: teachersOnly || held,
      held: false,
      groupId,
    }));
