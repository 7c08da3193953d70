import { NOTHING_DONE, type Contribution } from '@avrelle/core/class';
import type { PersonId, SourceId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { questionsBy } from '../questions/queries';
import { answersBy, marksBy, named, readBy, type Asked } from './queries';

/** What people of a class did, asked of the database once for all of them. */
export interface Tally {
  done(sourceId: SourceId, personId: PersonId): Contribution;
  /** How many questions they are asked. */
  asked(sourceId: SourceId, personId: PersonId): number;
  /** The share that was read, 0 to 1; undefined where it was never opened. Who wrote on it opened it. */
  read(sourceId: SourceId, personId: PersonId): number | undefined;
  /** Whether they looked at it, since an instant where one is given. */
  looked(sourceId: SourceId, personId: PersonId, since: string | null): boolean;
}

export function tallyOf(db: Db, asked: Asked): Tally {
  const key = (sourceId: SourceId, personId: PersonId): string => `${sourceId} ${personId}`;
  const done = new Map<string, { marks: Record<string, number>; answers: number; questions: number }>();
  const at = (sourceId: SourceId, personId: PersonId) => {
    const found = done.get(key(sourceId, personId)) ?? { marks: {}, answers: 0, questions: 0 };
    done.set(key(sourceId, personId), found);
    return found;
  };
  for (const { sourceId, personId, kind, count } of marksBy(db, asked)) at(sourceId, personId).marks[kind] = count;
  for (const { sourceId, personId, count } of answersBy(db, asked)) at(sourceId, personId).answers = count;
  const questions = new Map<string, number>();
  for (const { sourceId, personId, asked: count, answered } of questionsBy(db, named(asked))) {
    questions.set(key(sourceId, personId), count);
    if (answered > 0) at(sourceId, personId).questions = answered;
  }
  const read = new Map(readBy(db, asked).map((row) => [key(row.sourceId, row.personId), row]));
  const share = (...of: [SourceId, PersonId]): number | undefined =>
    read.get(key(...of))?.readShare ?? (done.has(key(...of)) ? 0 : undefined);
  return {
    done: (...of) => done.get(key(...of)) ?? NOTHING_DONE,
    asked: (...of) => questions.get(key(...of)) ?? 0,
    read: share,
    looked: (sourceId, personId, since) =>
      since === null
        ? share(sourceId, personId) !== undefined
        : (read.get(key(sourceId, personId))?.openedAt ?? '') >= since,
  };
}

/** How many marks it is, of all kinds. */
export const marksOf = ({ marks }: Contribution): number => Object.values(marks).reduce((sum, n) => sum + n, 0);
