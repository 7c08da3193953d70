import type { FastifyInstance } from 'fastify';
import { feedSchema, settleSchema, type Arrival, type Feed, type Job } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parseAddress } from '../ingest/network-policy';
import { checkListLimit } from '../list-limit-queries';
import { startJob } from '../jobs/start-job';
import { parse } from '../parse';
import { readId } from '../read-id';
import { checkFeed } from './feed-watch';
import { arrivalsOf, feedOf, feedsOf, insertFeed, insertItems, itemOf, removeFeed, settleItems } from './queries';

/** Feeds one follows, and what is new in them: to be accepted or skipped. */
export function feedRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, newId, ingester, events } = context;

  app.get('/api/feeds', (request): Feed[] => feedsOf(db, personOf(request).id));

  app.post('/api/feeds', async (request): Promise<Feed> => {
    const me = personOf(request).id;
    const { id, address } = parse(feedSchema, request.body);
    const feed = await ingester.feed(parseAddress(address).href);
    db.transaction(() => {
      if (insertFeed(db, id, me, feed, now())) insertItems(db, id, feed, newId, now());
      checkListLimit(db, 'feeds', me);
      events.append({ type: 'arrivals', personId: me });
    });
    const followed = feedOf(db, me, id) ?? feedsOf(db, me).find((f) => f.address === feed.address);
    if (!followed) throw new AppError('id_taken', { id });
    return followed;
  });

  app.post('/api/feeds/:id/check', async (request): Promise<Feed> => {
    const me = personOf(request).id;
    const id = readId(request);
    const feed = feedOf(db, me, id);
    if (!feed) throw new AppError('not_found', { what: 'feed' });
    await checkFeed(context, { id, personId: me, address: feed.address });
    return feedOf(db, me, id) ?? feed;
  });

  app.delete('/api/feeds/:id', (request, reply) => {
    if (!removeFeed(db, personOf(request).id, readId(request))) throw new AppError('not_found', { what: 'feed' });
    events.append({ type: 'arrivals', personId: personOf(request).id });
    return reply.code(204).send();
  });

  arrivalRoutes(app, context);
}

/** What is new in them: kept or skipped. */
function arrivalRoutes(app: FastifyInstance, context: Context): void {
  const { db, newId, events } = context;

  app.get('/api/arrivals', (request): Arrival[] => arrivalsOf(db, personOf(request).id));

  /** Keeps the items named; `jobIds` are the ids of the jobs this starts, one an item. */
  app.post('/api/arrivals/accept', (request): Job[] => {
    const me = personOf(request).id;
    const { ids, jobIds } = parse(settleSchema, request.body);
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
        input: { sourceId: newId(), address: item.address, tags: [] },
      }),
    );
  });

  for (const [path, state] of [
    ['skip', 'skipped'],
    ['restore', 'new'],
  ] as const) {
    app.post(`/api/arrivals/${path}`, (request, reply) => {
      const me = personOf(request).id;
      const { ids } = parse(settleSchema, request.body);
      db.transaction(() => {
        settleItems(db, me, ids, state);
        events.append({ type: 'arrivals', personId: me });
      });
      return reply.code(204).send();
    });
  }
}
