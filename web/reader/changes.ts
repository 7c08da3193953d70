import type { AnnotationPatch } from '@avrelle/core/wire';

/** `place`: where the author says it belongs in the newest version; null to go by what was found. */
export type Fields = Omit<AnnotationPatch, 'version'> & { place?: { readonly start: number; readonly end: number } | null };

/** One step a person took, as data: what brings it back, and what does it again. */
export interface Change {
  readonly id: string;
  readonly words: string;
  readonly undo: Fields;
  readonly redo: Fields;
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
