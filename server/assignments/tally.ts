import { NOTHING_DONE, type Contribution } from '@avrelle/core/class';
import type { PersonId, SourceId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { answersBy, marksBy, readBy, type Asked } from './queries';

/** What people of a class did, asked of the database once for all of them. */
export interface Tally {
  done(sourceId: SourceId, personId: PersonId): Contribution;
  /** The share that was read, 0 to 1; undefined where it was never opened. Who wrote on it opened it. */
  read(sourceId: SourceId, personId: PersonId): number | undefined;
}

export function tallyOf(db: Db, asked: Asked): Tally {
  const key = (sourceId: SourceId, personId: PersonId): string => `${sourceId} ${personId}`;
  const done = new Map<string, { marks: Record<string, number>; answers: number }>();
  const at = (sourceId: SourceId, personId: PersonId) => {
    const found = done.get(key(sourceId, personId)) ?? { marks: {}, answers: 0 };
    done.set(key(sourceId, personId), found);
    return found;
  };
  for (const { sourceId, personId, kind, count } of marksBy(db, asked)) at(sourceId, personId).marks[kind] = count;
  for (const { sourceId, personId, count } of answersBy(db, asked)) at(sourceId, personId).answers = count;
  const read = new Map(readBy(db, asked).map((row) => [key(row.sourceId, row.personId), row.readShare]));
  return {
    done: (...of) => done.get(key(...of)) ?? NOTHING_DONE,
    read: (...of) => read.get(key(...of)) ?? (done.has(key(...of)) ? 0 : undefined),
  };
}

/** How many marks it is, of all kinds. */
export const marksOf = ({ marks }: Contribution): number => Object.values(marks).reduce((sum, n) => sum + n, 0);
