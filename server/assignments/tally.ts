import { NOTHING_DONE, type Contribution } from '@avrelle/core/class';
import type { PersonId, SourceId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { answersBy, marksBy, readBy, type Asked } from './queries';

/** What people of a class did, asked of the database once for all of them. */
export interface Tally {
  done(sourceId: SourceId, personId: PersonId): Contribution;
  /** The share that was read, 0 to 1; undefined where it was never opened. */
  read(sourceId: SourceId, personId: PersonId): number | undefined;
}

export function tallyOf(db: Db, asked: Asked): Tally {
  const done = new Map<string, { marks: Record<string, number>; answers: number }>();
  const at = (sourceId: SourceId, personId: PersonId) => {
    const key = `${sourceId} ${personId}`;
    const found = done.get(key) ?? { marks: {}, answers: 0 };
    done.set(key, found);
    return found;
  };
  for (const { sourceId, personId, kind, count } of marksBy(db, asked)) at(sourceId, personId).marks[kind] = count;
  for (const { sourceId, personId, count } of answersBy(db, asked)) at(sourceId, personId).answers = count;
  const read = new Map(readBy(db, asked).map((row) => [`${row.sourceId} ${row.personId}`, row.readShare]));
  return {
    done: (sourceId, personId) => done.get(`${sourceId} ${personId}`) ?? NOTHING_DONE,
    read: (sourceId, personId) => read.get(`${sourceId} ${personId}`),
  };
}

/** How many marks it is, of all kinds. */
export const marksOf = ({ marks }: Contribution): number => Object.values(marks).reduce((sum, n) => sum + n, 0);
