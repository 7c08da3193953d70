import type { Annotation } from '@avrelle/core/wire';
import type { Fields } from '../fields';

/** What a change is to an annotation that was changed elsewhere meanwhile. */
export type Rebased =
  /** What is still to be written; empty where it is so already. */
  | { readonly type: 'fits'; readonly fields: Fields }
  /** The same thing was changed to something else: whoever wrote has to see both. */
  | { readonly type: 'conflict'; readonly field: keyof Fields };

/**
 * A change made on top of `before`, put on top of what stands now. Tags, classes and groups are added and taken away,
 * so that others stay; any other field must still be what it was, or be what it is to become.
 */
export function rebase(fields: Fields, before: Fields, current: Annotation): Rebased {
  const now = fieldsOf(current);
  const left: { -readonly [K in keyof Fields]: Fields[K] } = {};
  for (const key of Object.keys(fields) as (keyof Fields)[]) {
    if (isList(key)) {
      const wanted = joined(now[key] ?? [], before[key] ?? [], fields[key] ?? []);
      if (!same(sorted(wanted), sorted(now[key] ?? []))) left[key] = wanted;
    } else if (!same(now[key], fields[key])) {
      if (key in before && !same(now[key], before[key])) return { type: 'conflict', field: key };
      Object.assign(left, { [key]: fields[key] });
    }
  }
  return { type: 'fits', fields: left };
}

const isList = (key: keyof Fields): key is 'tags' | 'classIds' | 'groupIds' =>
  key === 'tags' || key === 'classIds' || key === 'groupIds';

/** `now` with what was added from `before` to `after`, without what was taken away. */
function joined(now: readonly string[], before: readonly string[], after: readonly string[]): string[] {
  const taken = new Set(before.filter((one) => !after.includes(one)));
  return [...new Set([...now, ...after.filter((one) => !before.includes(one))])].filter((one) => !taken.has(one));
}

const sorted = (list: readonly string[]): readonly string[] => list.toSorted();
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What of an annotation its author can change, as it stands. */
export function fieldsOf({
  kind,
  note,
  tags,
  classIds,
  teachersOnly,
  held = [],
  groups = [],
  deleted,
  place,
  versionId,
  anchor,
}: Annotation): Required<Fields> {
  return {
    kind: kind.code,
    note,
    tags,
    classIds,
    teachersOnly: teachersOnly === true,
    held: held.length > 0,
    groupIds: groups.map(({ groupId }) => groupId),
    deleted: deleted === true,
    passage: { versionId, anchor: anchor! },
    place: place?.byHand && place.start !== null && place.end !== null ? { start: place.start, end: place.end } : null,
  };
}
