import { PLAIN_NOTE, type Kind, type KindCode } from '@avrelle/core/key';
import type { Anchor } from '@avrelle/core/anchor';
import type { Annotation } from '@avrelle/core/wire';
import type { StreamRange } from './page-frame';

/** What of an annotation its author can change. */
export interface Fields {
  readonly kind?: KindCode;
  readonly note?: string;
  readonly tags?: readonly string[];
  readonly classIds?: readonly string[];
  readonly deleted?: boolean;
  /** Other words of its source. */
  readonly passage?: { readonly versionId: string; readonly anchor: Anchor };
  /** Where its author says it belongs in the newest version; null to go by what was found. */
  readonly place?: StreamRange | null;
}

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
export const remember = (history: History, change: Change): History => ({ done: [...history.done, change].slice(-LONGEST), undone: [] });

/** Forgets a step that did not hold after all. */
export function withdraw(history: History, change: Change): History {
  const at = history.done.findLastIndex((c) => JSON.stringify(c) === JSON.stringify(change));
  return at < 0 ? history : { ...history, done: history.done.toSpliced(at, 1) };
}

export function stepBack(history: History): { history: History; change: Change } | undefined {
  const change = history.done.at(-1);
  return change && { change, history: { done: history.done.slice(0, -1), undone: [...history.undone, change] } };
}

export function stepForward(history: History): { history: History; change: Change } | undefined {
  const change = history.undone.at(-1);
  return change && { change, history: { done: [...history.done, change], undone: history.undone.slice(0, -1) } };
}

/** The change of one annotation with what it was before. */
export const partOf = (annotation: Annotation, fields: Fields): Part => ({ id: annotation.id, redo: fields, undo: Object.fromEntries(Object.keys(fields).map((key) => [key, former(annotation, key as keyof Fields)])) });

function former(annotation: Annotation, key: keyof Fields): unknown {
  const { place } = annotation;
  switch (key) {
    case 'deleted': return false;
    case 'kind': return annotation.kind.code;
    case 'place': return place?.byHand ? { start: place.start, end: place.end } : null;
    case 'passage': return { versionId: annotation.versionId, anchor: annotation.anchor };
    default: return annotation[key];
  }
}

/** An annotation as it will be, before the server has answered. What was found again only the server knows. */
export function shownAs(annotation: Annotation, fields: Fields, kindOf: (code: KindCode) => Kind | undefined): Annotation {
  const { kind, place, passage, deleted, ...plain } = fields;
  return {
    ...annotation, ...plain,
    ...(kind === undefined ? {} : { kind: kindOf(kind) ?? annotation.kind }),
    ...(place && annotation.place ? { place: { ...annotation.place, ...place, confidence: 1, byHand: true } } : {}),
    ...(passage ? { anchor: passage.anchor, versionId: passage.versionId, place: annotation.place && { ...annotation.place, ...passage.anchor.position, state: 'exact' as const, confidence: 1, byHand: false, candidates: [] } } : {}),
    ...(deleted ? { deleted: true as const, note: '', tags: [], kind: PLAIN_NOTE } : {}),
  };
}
