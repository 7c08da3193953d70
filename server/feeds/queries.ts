import type { Writing } from '../writing';
import type { Arrival, Feed, FeedId, PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import type { ReadFeed } from '../ingest/feed';

const COLUMNS =
  "f.id, f.address, f.title, f.site, f.checked_at, f.error, (SELECT count(*) FROM feed_item i WHERE i.feed_id = f.id AND i.state = 'new') AS waiting";
const INSERT =
  'INSERT INTO feed (id, person_id, address, title, site, added_at, checked_at) VALUES (?, ?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING';
const OF_PERSON = `SELECT ${COLUMNS} FROM feed f WHERE f.person_id = ? ORDER BY f.title`;
const ONE = `SELECT ${COLUMNS} FROM feed f WHERE f.id = ? AND f.person_id = ?`;
const DUE = 'SELECT id, person_id, address FROM feed WHERE checked_at < ? ORDER BY checked_at LIMIT 50';
const REMOVE = 'DELETE FROM feed WHERE id = ? AND person_id = ?';
const CHECKED = 'UPDATE feed SET checked_at = ?, error = ?, title = coalesce(?, title) WHERE id = ?';
const INSERT_ITEM =
  "INSERT INTO feed_item (id, feed_id, name, address, title, author, summary, published_at, arrived_at, state) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, 'new') ON CONFLICT (feed_id, name) DO NOTHING";
export const ARRIVALS = `
  SELECT i.id, i.feed_id, f.title AS feed, i.address, i.title, i.author, i.summary, i.published_at, i.arrived_at FROM feed f JOIN feed_item i ON i.feed_id = f.id
  WHERE f.person_id = ? AND i.state = 'new' ORDER BY i.arrived_at DESC, i.published_at DESC LIMIT 200`;
const SETTLE =
  'UPDATE feed_item SET state = @state WHERE id IN (SELECT value FROM json_each(@ids)) AND feed_id IN (SELECT id FROM feed WHERE person_id = @me) AND state <> @state';
const ITEM =
  'SELECT i.id, i.address, i.title FROM feed_item i JOIN feed f ON f.id = i.feed_id WHERE i.id = ? AND f.person_id = ?';

export const feedsOf = (db: Db, personId: PersonId): Feed[] => db.all<Feed>(OF_PERSON, personId);
export const feedOf = (db: Db, personId: PersonId, id: FeedId): Feed | undefined => db.get<Feed>(ONE, id, personId);
/** A feed that is to be asked, and who follows it. */
export interface Due {
  readonly id: FeedId;
  readonly personId: PersonId;
  readonly address: string;
}
export const feedsDue = (db: Db, before: string): Due[] => db.all<Due>(DUE, before);
export const insertFeed = (
  db: Db,
  { id, personId }: { readonly id: FeedId; readonly personId: PersonId },
  { address, title, site }: ReadFeed,
  now: string,
): boolean => db.run(INSERT, id, personId, address, title, site, now, now) > 0;
export const removeFeed = (db: Db, personId: PersonId, id: string): boolean => db.run(REMOVE, id, personId) > 0;
/** What came of asking a feed: what is wrong with it, or how it is called now. */
interface Checked {
  readonly now: string;
  readonly error: string | null;
  readonly title: string | null;
}
export const feedChecked = (db: Db, id: FeedId, { now, error, title }: Checked): number =>
  db.run(CHECKED, now, error, title, id);
export const arrivalsOf = (db: Db, personId: PersonId): Arrival[] => db.all<Arrival>(ARRIVALS, personId);
export const settleItems = (
  db: Db,
  me: PersonId,
  ids: readonly string[],
  state: 'new' | 'accepted' | 'skipped',
): number => db.run(SETTLE, { me, ids: JSON.stringify(ids), state });
export const itemOf = (db: Db, personId: PersonId, id: string) =>
  db.get<{ id: string; address: string; title: string }>(ITEM, id, personId);

/** How many of the items were not there before. */
export function insertItems(
  { db, newId, now: clock }: Pick<Writing, 'db' | 'newId' | 'now'>,
  feedId: FeedId,
  feed: ReadFeed,
): number {
  const now = clock();
  return feed.items.reduce(
    (fresh, i) =>
      fresh + db.run(INSERT_ITEM, newId(), feedId, i.name, i.address, i.title, i.author, i.summary, i.publishedAt, now),
    0,
  );
}
