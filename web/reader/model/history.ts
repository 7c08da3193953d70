import { PLAIN_NOTE, type Kind, type KindCode } from '@avrelle/core/legend';
import type { Annotation, GroupId, InGroup } from '@avrelle/core/wire';
import { fieldsOf } from '../../data/outbox/rebase';
import type { Fields } from '../../data/fields';

export type { Fields } from '../../data/fields';

/** What is done to one annotation, as data: what brings it back, and what does it again. */
export interface Part {
  readonly id: string;
  readonly undo: Fields;
  readonly redo: Fields;
}

/** One step a person took, on one annotation or many. */
export interface Change {
  readonly words: string;
  readonly parts: readonly Part[];
}

/** What was done and what was taken back during a visit, newest last. */
export interface History {
  readonly done: readonly Change[];
  readonly undone: readonly Change[];
}

export const EMPTY: History = { done: [], undone: [] };
const LONGEST = 200;

/** Remembers a step; what had been taken back before can then be done again no more. */
export const remember = (history: History, change: Change): History => ({
  done: [...history.done, change].slice(-LONGEST),
  undone: [],
});

/** Takes back one step, whatever was done since; undefined where that was done already. */
export function takeBack(history: History, change: Change): History | undefined {
  const left = withdraw(history, change);
  return left === history ? undefined : { done: left.done, undone: [...history.undone, change] };
}

/** Forgets a step that did not hold after all. */
export function withdraw(history: History, change: Change): History {
  const at = history.done.findLastIndex((c) => JSON.stringify(c) === JSON.stringify(change));
  return at < 0 ? history : { ...history, done: history.done.toSpliced(at, 1) };
}

/** Forgets a step that could be neither undone nor done again, so that it is not in the way of those before it. */
export function forget(history: History, change: Change): History {
  const turned: History = { done: history.undone, undone: [] };
  return { done: withdraw(history, change).done, undone: withdraw(turned, change).done };
}

export function stepBack(history: History): { history: History; change: Change } | undefined {
  const change = history.done.at(-1);
  return change && { change, history: { done: history.done.slice(0, -1), undone: [...history.undone, change] } };
}

export function stepForward(history: History): { history: History; change: Change } | undefined {
  const change = history.undone.at(-1);
  return change && { change, history: { done: [...history.done, change], undone: history.undone.slice(0, -1) } };
}

/** The change of one annotation with what it was before; of what is the same already nothing is left. */
export function partOf(annotation: Annotation, fields: Fields): Part {
  const before = fieldsOf(annotation);
  const keys = (Object.keys(fields) as (keyof Fields)[]).filter(
    (key) => JSON.stringify(before[key]) !== JSON.stringify(fields[key]),
  );
  const only = (all: Fields): Fields => Object.fromEntries(keys.map((key) => [key, all[key]]));
  return { id: annotation.id, redo: only(fields), undo: only(before) };
}

/** An annotation as it will be, before the server has answered. What was found again only the server knows. */
export function shownAs(
  annotation: Annotation,
  fields: Fields,
  kindOf: (code: KindCode) => Kind | undefined,
  groupOf: (id: GroupId) => InGroup | undefined = () => undefined,
): Annotation {
  const { kind, place, passage, deleted, teachersOnly, held, groupIds, ...plain } = fields;
  const groups = groupIds?.flatMap((id) => groupOf(id) ?? annotation.groups?.find((one) => one.groupId === id) ?? []);
  return {
    ...forWhom({ ...annotation, ...plain, ...(groups ? { groups } : {}) }, teachersOnly, held),
    ...(kind === undefined ? {} : { kind: kindOf(kind) ?? annotation.kind }),
    ...(place && annotation.place ? { place: { ...annotation.place, ...place, confidence: 1, byHand: true } } : {}),
    ...(passage
      ? {
          anchor: passage.anchor,
          versionId: passage.versionId,
          place: annotation.place && {
            ...annotation.place,
            ...passage.anchor.position,
            state: 'exact' as const,
            confidence: 1,
            byHand: false,
            candidates: [],
          },
        }
      : {}),
    ...(deleted ? { deleted: true as const, note: '', tags: [], kind: PLAIN_NOTE } : {}),
  };
}

/** For whom in its classes it is; when it is released only the server knows. */
function forWhom(
  { teachersOnly: wasForTeachers, held: wasHeld, ...annotation }: Annotation,
  teachersOnly = wasForTeachers === true,
  held = wasHeld !== undefined,
): Annotation {
  const holds = held ? (wasHeld ?? annotation.classIds.map((classId) => ({ classId, releaseAt: null }))) : undefined;
  return { ...annotation, ...(teachersOnly ? { teachersOnly } : {}), ...(holds ? { held: holds } : {}) };
}
