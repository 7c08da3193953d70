import { isRead } from '../reading/spans';
import type { Assignment, NamedExpectation } from '../wire/assignment';
import { expectationWords, isDone } from './assignment';

/** "two claims, one answer"; empty where nothing is asked for. */
export function wordsFor(expected: NamedExpectation): string {
  const names = new Map(expected.marks.map(({ kind, name }) => [kind, name]));
  return expectationWords(expected, (kind) => names.get(kind) ?? kind);
}

/** What is left of what was asked for, "reading it" where it is only to be read; empty where all is done. */
export function leftWords(expected: NamedExpectation, missing: NamedExpectation, readShare: number): string {
  const left = wordsFor(missing);
  return left || (isDone(expected) && !isRead(readShare) ? 'reading it' : '');
}

/** What I have left to do; empty where it is done, and for who teaches. */
export const leftOf = ({ expected, missing, source }: Assignment): string =>
  missing === null ? '' : leftWords(expected, missing, source.readShare);
