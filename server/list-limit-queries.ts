import type { Db } from './db/database';
import { AppError } from './errors';

/** What is given out as a whole, because its order is written as a whole: so much of it at most. */
const LISTS = {
  collections: {
    limit: 1_000,
    count: 'SELECT count(*) AS n FROM collection WHERE owner_id = ? AND deleted_at IS NULL',
  },
  searches: { limit: 500, count: 'SELECT count(*) AS n FROM saved_search WHERE owner_id = ?' },
  tokens: { limit: 50, count: 'SELECT count(*) AS n FROM token WHERE person_id = ?' },
  feeds: { limit: 300, count: 'SELECT count(*) AS n FROM feed WHERE person_id = ?' },
  sources: { limit: 5_000, count: 'SELECT count(*) AS n FROM collection_item WHERE collection_id = ?' },
} as const;

/** After something was added to somebody's list, or to the sources of a collection; ends the transaction it was added in. Throws `list_full`. */
export function checkListLimit(db: Db, what: keyof typeof LISTS, of: string): void {
  const { limit, count } = LISTS[what];
  if (db.get<{ n: number }>(count, of)!.n > limit)
    throw new AppError('list_full', {
      what: what === 'tokens' ? 'access keys' : what,
      limit,
      where: what === 'sources' ? 'one collection' : 'one account',
    });
}
