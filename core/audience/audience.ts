import type { ClassId } from '../wire/ids';
/** Who an annotation is for: no class is only its author. One annotation may be for several classes. */
export interface Audience {
  readonly classIds: readonly ClassId[];
}

export const ONLY_ME: Audience = { classIds: [] };

/** The audience in words, e.g. "Only me", "Field Course B", "Field Course A and Field Course B". */
export function audienceWords(audience: Audience, nameOf: (classId: ClassId) => string | undefined): string {
  const names = audience.classIds.map((id) => nameOf(id) ?? 'another class');
  if (names.length === 0) return 'Only me';
  if (names.length === 1) return names[0]!;
  return `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}

/** A reply goes no further than what it answers: the classes of the root in which the writer is too. */
export function replyAudience(root: Audience, memberOf: ReadonlySet<string>): Audience {
  const classIds = root.classIds.filter((id) => memberOf.has(id));
  return classIds.length === root.classIds.length ? root : { classIds };
}
