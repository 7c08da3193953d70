import type { Context } from '../context';
import { forGood, removeOrphans, removeUnused } from '../db/unused';
import { mergeWords } from '../find/common-queries';
import { removeOldEvents } from '../events/queries';
import { removeOldJobs } from '../jobs/queries';
import { removeOldDrafts } from '../drafts/queries';
import { removeOldDigests } from '../notifications/digest-queries';
import { removeExpiredClasses } from '../classes/member-queries';
import { removeLinksOver } from '../joining/queries';
import { removeAnnotations } from '../annotations/remove-queries';
import { removeExpiredCards } from '../review/queries';
import { removeExpiredNotes } from '../study/queries';
import { expired, filesOf, removeExpiredCollections, removeSource } from './queries';

const DAY = 86_400_000;
/** For so many days what was deleted can be brought back. */
export const KEPT_DAYS = 30;
/** So long a page can be away and still be told what it missed; later it asks for everything anew. */
const EVENT_DAYS = 7;
/** So long an ended job can be tried again or be kept all the same, and a page looked at can be kept. */
const JOB_DAYS = 1;
/** So long what a mail said is known, and its address ends the mails. */
const MAIL_DAYS = 400;

/** Files that nothing referred to when they were last looked for: what is just being stored is referred to by the next time. */
export type Orphans = ReadonlySet<string>;

export interface Removed {
  readonly sources: number;
  readonly annotations: number;
  readonly orphans: Orphans;
}

/**
 * Removes for good what was deleted long ago and what nothing needs any more: sources, annotations, their words in the
 * indexes, ended jobs with what was uploaded for them, old events, drafts, and files that nothing refers to.
 */
export function removeExpired({ db, now }: Pick<Context, 'db' | 'now'>, seenBefore: Orphans = new Set()): Removed {
  const before = (days: number): string => new Date(Date.parse(now()) - days * DAY).toISOString();
  return forGood(db, () => {
    const ids = expired(db, before(KEPT_DAYS));
    for (const id of ids) {
      const files = filesOf(db, id);
      removeSource(db, id);
      removeUnused(db, files);
    }
    const annotations = removeAnnotations(db, before(KEPT_DAYS));
    removeExpiredCollections(db, before(KEPT_DAYS));
    removeExpiredClasses(db, before(KEPT_DAYS));
    removeExpiredNotes(db, before(KEPT_DAYS));
    removeExpiredCards(db, before(KEPT_DAYS));
    removeLinksOver(db, before(KEPT_DAYS));
    removeOldJobs(db, before(JOB_DAYS), before(KEPT_DAYS));
    removeOldEvents(db, before(EVENT_DAYS));
    removeOldDrafts(db, before(JOB_DAYS));
    removeOldDigests(db, before(MAIL_DAYS));
    // The indexes hold removed words until their parts are merged.
    if (ids.length + annotations > 0) mergeWords(db);
    return { sources: ids.length, annotations, orphans: removeOrphans(db, seenBefore) };
  });
}
