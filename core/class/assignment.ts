import type { KindCode } from '../legend/legend';
import { isRead } from '../reading/spans';

/** So many marks, of one kind or, without one, of any. */
export interface ExpectedMarks {
  readonly kind: KindCode | null;
  readonly count: number;
}

/** What a class is asked to do with a reading. */
export interface Expectation {
  readonly marks: readonly ExpectedMarks[];
  /** To marks of others. */
  readonly answers: number;
  /** Of its teachers, to be answered. */
  readonly questions: number;
}

/** What one person did for the class: marks by kind, answers to marks of others, and questions answered. */
export interface Contribution {
  readonly marks: Readonly<Record<KindCode, number>>;
  readonly answers: number;
  readonly questions: number;
}

export const NOTHING_DONE: Contribution = { marks: {}, answers: 0, questions: 0 };

/**
 * What of it is still to be done. Each kind is counted by itself first; where marks of any kind are asked for, too,
 * those count that are over, so that nothing counts twice.
 */
export function missing(expected: Expectation, done: Contribution): Expectation {
  const left = new Map(Object.entries(done.marks));
  const take = (kind: KindCode, most: number): number => {
    const taken = Math.min(left.get(kind) ?? 0, most);
    left.set(kind, (left.get(kind) ?? 0) - taken);
    return taken;
  };
  const ofKind = expected.marks
    .filter((m) => m.kind !== null)
    .map((m) => ({ ...m, count: m.count - take(m.kind!, m.count) }));
  const over = [...left.values()].reduce((sum, n) => sum + n, 0);
  const any = expected.marks.filter((m) => m.kind === null).reduce((sum, m) => sum + m.count, 0);
  return {
    marks: [...ofKind, { kind: null, count: any - over }].filter((m) => m.count > 0),
    answers: Math.max(0, expected.answers - done.answers),
    questions: Math.max(0, expected.questions - done.questions),
  };
}

export const isDone = ({ marks, answers, questions }: Expectation): boolean =>
  marks.length === 0 && answers === 0 && questions === 0;

/** Whether somebody did all that is asked for; where it is only to be read, whether they read it. */
export const hasDone = (expected: Expectation, done: Contribution, readShare: number): boolean =>
  isDone(expected) ? isRead(readShare) : isDone(missing(expected, done));

/**
 * Whether somebody gave their own, after which they may see what others gave: all the marks that are expected; where
 * none are, one.
 */
export function gaveOwn(marks: readonly ExpectedMarks[], done: Contribution): boolean {
  const given = Object.values(done.marks).reduce((sum, n) => sum + n, 0);
  return given > 0 && missing({ marks, answers: 0, questions: 0 }, done).marks.length === 0;
}

/** An annotation, as far as it counts. */
export interface Countable {
  readonly author: { readonly id: string };
  readonly classIds: readonly string[];
  readonly rootId: string | null;
  readonly kind: { readonly code: KindCode };
  readonly deleted?: true;
}

/** What somebody wrote for a class on one source, of annotations that include all of theirs and what these answer. */
export function contributionOf(
  annotations: readonly (Countable & { readonly id: string })[],
  personId: string,
  classId: string,
): Omit<Contribution, 'questions'> {
  const authors = new Map(annotations.map((a) => [a.id, a.author.id]));
  const own = annotations.filter((a) => a.author.id === personId && a.classIds.includes(classId) && !a.deleted);
  const marks: Record<KindCode, number> = {};
  for (const { kind } of own.filter((a) => a.rootId === null)) marks[kind.code] = (marks[kind.code] ?? 0) + 1;
  return { marks, answers: own.filter((a) => a.rootId !== null && authors.get(a.rootId) !== personId).length };
}

const NUMBERS = 'no one two three four five six seven eight nine ten eleven twelve'.split(' ');
const number = (n: number): string => NUMBERS[n] ?? String(n);

/** "two claims, one mark, one answer"; empty where nothing is asked for. `nameOf` gives the name of a kind. */
export function expectationWords(
  { marks, answers, questions }: Expectation,
  nameOf: (kind: KindCode) => string,
): string {
  const word = (n: number, one: string): string => {
    // Evidence is not counted as it stands.
    if (one === 'evidence') return `${number(n)} ${n === 1 ? 'piece' : 'pieces'} of evidence`;
    return `${number(n)} ${n === 1 || one.endsWith('s') ? one : `${one}s`}`;
  };
  return [
    ...marks.map(({ kind, count }) => word(count, kind === null ? 'mark' : nameOf(kind).toLowerCase())),
    ...(answers > 0 ? [word(answers, 'answer')] : []),
    ...(questions > 0 ? [`${word(questions, 'question')} to answer`] : []),
  ].join(', ');
}
