import { addSpan, covered, type Spans } from './spans';

/** Stretches of a recording that were played, in whole seconds. */
export type Heard = Spans;

/** Heard from the beginning without a gap, to this second. */
export const heardTo = (heard: Heard): number => (heard[0]?.[0] === 0 ? heard[0][1] : 0);

/**
 * Where a recording that is heard in order goes on when somebody asks for a moment, in seconds: there, if it was heard
 * before or comes next; else where it was heard to.
 */
export function inOrder(heard: Heard, seconds: number): number {
  const to = heardTo(heard);
  const isHeard = heard.some(([from, end]) => from <= seconds && seconds < end);
  return isHeard || seconds < to + 1 ? seconds : to;
}

/** With what was played from one moment to another, without a jump. */
export const hear = (heard: Heard, from: number, to: number): Heard => addSpan(heard, Math.floor(from), Math.floor(to));

/** In seconds. */
export const heardSeconds = (heard: Heard): number => covered(heard);
