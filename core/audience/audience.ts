import type { ClassId } from '../wire/ids';
/** Who an annotation is for: no class is only its author. One annotation may be for several classes. */
export interface Audience {
  readonly classIds: readonly ClassId[];
  /** Of these classes, only who teaches them. */
  readonly teachersOnly?: boolean;
  /** Kept from their students until it is released. */
  readonly held?: boolean;
}

/** A class that something is for, and for whom in it. */
export interface ForClass {
  readonly classId: ClassId;
  readonly teachersOnly: boolean;
  /** Until it is released, only who teaches the class sees it. */
  readonly held: boolean;
  /** Hidden from its students by somebody who teaches there. */
  readonly hidden?: boolean;
}

/** Everybody in a class. */
export const allOf = (classId: ClassId): ForClass => ({ classId, teachersOnly: false, held: false });

export const ONLY_ME: Audience = { classIds: [] };

/** The audience in words, e.g. "Only me", "Field Course A and Field Course B", "Teachers of Field Course B". */
export function audienceWords(audience: Audience, nameOf: (classId: ClassId) => string | undefined): string {
  const names = audience.classIds.map((id) => nameOf(id) ?? 'another class');
  if (names.length === 0) return 'Only me';
  const all = names.length === 1 ? names[0]! : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
  if (audience.teachersOnly) return `Teachers of ${all}`;
  return audience.held ? `${all}, held` : all;
}

/**
 * An answer goes no further than what it answers: to those of its classes in which the writer is too. What is written
 * under something held stays with the teachers, whatever is released later.
 */
export const answerAudience = (root: readonly ForClass[], memberOf: ReadonlySet<string>): readonly ForClass[] =>
  root
    .filter(({ classId }) => memberOf.has(classId))
    .map(({ classId, teachersOnly, held }) => ({ classId, teachersOnly: teachersOnly || held, held: false }));
