/**
 * Who sees what, in plain words. The views in the database (`source_visible`, `annotation_visible`,
 * `collection_visible`) and the conditions in `visible-queries.ts` give the same answers for thousands of rows at once;
 * a test holds them to this on worlds made at random.
 */
export interface World {
  readonly members: readonly { readonly classId: string; readonly personId: string }[];
  readonly sources: readonly { readonly id: string; readonly ownerId: string; readonly deleted: boolean }[];
  /** Which class reads which source. */
  readonly readings: readonly { readonly classId: string; readonly sourceId: string }[];
  readonly annotations: readonly AnnotationInWorld[];
}

export interface AnnotationInWorld {
  readonly id: string;
  readonly authorId: string;
  readonly sourceId: string;
  /** What it answers, at the beginning of its thread; null for one that stands in the text. */
  readonly rootId: string | null;
  /** For whom it is besides its author; none: only for them. */
  readonly classIds: readonly string[];
  readonly deleted: boolean;
}

const isMember = ({ members }: World, me: string, classId: string): boolean =>
  members.some((m) => m.classId === classId && m.personId === me);
const reads = ({ readings }: World, classId: string, sourceId: string): boolean =>
  readings.some((r) => r.classId === classId && r.sourceId === sourceId);

/** A source is seen by its owner and by every class that reads it, as long as it is not deleted. */
export function seesSource(world: World, me: string, sourceId: string): boolean {
  const source = world.sources.find((s) => s.id === sourceId);
  if (!source || source.deleted) return false;
  return source.ownerId === me || world.members.some((m) => m.personId === me && reads(world, m.classId, sourceId));
}

/**
 * An annotation that is not deleted is always seen by its author. Others see it by a class it is for, which they are in
 * and which reads its source; an answer only where what it answers is theirs or for a class of theirs, too, even if that
 * has been deleted since.
 */
export function seesAnnotation(world: World, me: string, annotation: AnnotationInWorld): boolean {
  if (annotation.deleted) return false;
  if (annotation.authorId === me) return true;
  const source = world.sources.find((s) => s.id === annotation.sourceId)!;
  if (source.deleted || !isForAClassOf(world, me, annotation)) return false;
  const root = world.annotations.find((a) => a.id === annotation.rootId);
  return root === undefined || root.authorId === me || isForAClassOf(world, me, root);
}

const isForAClassOf = (world: World, me: string, { classIds, sourceId }: AnnotationInWorld): boolean =>
  classIds.some((classId) => isMember(world, me, classId) && reads(world, classId, sourceId));
