import type { Context } from '../context';
import { forGood, removeUnused } from '../db/unused';
import { expired, filesOf, removeSource } from './queries';

/** For so many days what was deleted can be brought back. */
export const KEPT_DAYS = 30;

/** Removes for good what was deleted longer ago. Returns how many sources that were. */
export function removeExpired({ db, now }: Pick<Context, 'db' | 'now'>): number {
  const ids = expired(db, new Date(Date.parse(now()) - KEPT_DAYS * 86_400_000).toISOString());
  if (ids.length === 0) return 0;
  forGood(db, () => {
    for (const id of ids) {
      const files = filesOf(db, id);
      removeSource(db, id);
      removeUnused(db, files);
    }
  });
  return ids.length;
}
