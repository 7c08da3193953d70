import type { Context } from '../context';
import { AppError } from '../errors';
import { feedChecked, feedsDue, insertItems, type Due } from './queries';

const LOOK_EVERY = 5 * 60_000;
/** A feed is asked for once in this time (common practice). */
const CHECK_EVERY = 60 * 60_000;

type World = Pick<Context, 'db' | 'now' | 'newId' | 'events' | 'ingester'>;

/** Looks at every feed about once an hour, one after the other. Returns how to stop it. */
export function watchFeeds(world: World): () => void {
  let busy = false;
  const look = async (): Promise<void> => {
    if (busy) return;
    busy = true;
    try {
      for (const feed of feedsDue(world.db, new Date(Date.parse(world.now()) - CHECK_EVERY).toISOString()))
        await checkFeed(world, feed);
    } finally {
      busy = false;
    }
  };
  const timer = setInterval(() => {
    look().catch((error: unknown) => console.error('feeds:', error));
  }, LOOK_EVERY);
  timer.unref();
  return () => clearInterval(timer);
}

/** Asks a feed for what is new. What goes wrong is noted with it. */
export async function checkFeed(
  { db, now, newId, events, ingester }: World,
  { id, personId, address }: Due,
): Promise<void> {
  const feed = await ingester
    .feed(address)
    .catch((error: unknown) =>
      error instanceof AppError ? error : new AppError('bad_feed', { address, reason: String(error) }),
    );
  db.transaction(() => {
    const failed = feed instanceof AppError;
    // Somebody may have stopped following it meanwhile.
    const found = failed ? { error: feed.message, title: null } : { error: null, title: feed.title };
    if (feedChecked(db, id, { now: now(), ...found }) === 0) return;
    if (!failed) insertItems({ db, newId, now }, id, feed);
    events.append({ type: 'arrivals', personId });
  });
}
