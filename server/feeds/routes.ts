import type { PersonId } from '@avrelle/core/wire';
import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parseAddress } from '../ingest/network-policy';
import { checkListLimit } from '../list-limit-queries';
import { startJob } from '../jobs/start-job';
import { serving } from '../serve';
import { checkFeed } from './feed-watch';
import { arrivalsOf, feedOf, feedsOf, insertFeed, insertItems, itemOf, removeFeed, settleItems } from './queries';

/** Feeds one follows, and what is new in them: to be accepted or skipped. */
export function feedRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, ingester, events } = context;
  const serve = serving(app, context);

  serve('GET /api/feeds', ({ me }) => feedsOf(db, me.id));

  serve('POST /api/feeds', async ({ me: { id: me }, body: { id, address } }) => {
    const feed = await ingester.feed(parseAddress(address).href);
    db.transaction(() => {
      if (insertFeed(db, { id, personId: me }, feed, now())) insertItems(context, id, feed);
      checkListLimit(db, 'feeds', me);
      events.append({ type: 'arrivals', personId: me });
    });
    const followed = feedOf(db, me, id) ?? feedsOf(db, me).find((f) => f.address === feed.address);
    if (!followed) throw new AppError('id_taken', { id });
    return followed;
  });

  serve('POST /api/feeds/:id/check', async ({ me, params: { id } }) => {
    const feed = feedOf(db, me.id, id)!;
    await checkFeed(context, { id, personId: me.id, address: feed.address });
    return feedOf(db, me.id, id) ?? feed;
  });

  serve('DELETE /api/feeds/:id', ({ me, params }) => {
    removeFeed(db, me.id, params.id);
    events.append({ type: 'arrivals', personId: me.id });
  });

  arrivalRoutes(app, context);
}

/** What is new in them: kept or skipped. */
function arrivalRoutes(app: FastifyInstance, context: Context): void {
  const { db, newId, events } = context;
  const serve = serving(app, context);

  serve('GET /api/arrivals', ({ me }) => arrivalsOf(db, me.id));

  serve('POST /api/arrivals/accept', ({ me: { id: me }, body: { ids, jobIds } }) => {
    const items = ids.flatMap((id, n) => {
      const item = itemOf(db, me, id);
      return item ? [{ ...item, jobId: jobIds[n] ?? newId() }] : [];
    });
    db.transaction(() => {
      settleItems(db, me, ids, 'accepted');
      events.append({ type: 'arrivals', personId: me });
    });
    return items.map((item) =>
      startJob(context, {
        id: item.jobId,
        personId: me,
        label: item.title,
        input: {
          origin: { type: 'address', address: item.address },
          target: { type: 'source', sourceId: newId(), tags: [] },
        },
      }),
    );
  });

  const settle = (me: PersonId, ids: readonly string[], state: 'skipped' | 'new'): void =>
    db.transaction(() => {
      settleItems(db, me, ids, state);
      events.append({ type: 'arrivals', personId: me });
    });
  serve('POST /api/arrivals/skip', ({ me, body }) => settle(me.id, body.ids, 'skipped'));
  serve('POST /api/arrivals/restore', ({ me, body }) => settle(me.id, body.ids, 'new'));
}
