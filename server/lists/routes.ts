import type { FastifyInstance, FastifyRequest } from 'fastify';
import { addressesIn } from '@avrelle/core/gather';
import { batchPatchSchema, batchSchema, MOST_ADDRESSES, type Batch } from '@avrelle/core/wire';
import Papa from 'papaparse';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { insertJob, requeueFailedOf } from '../jobs/queries';
import { parse } from '../parse';
import { readId } from '../read-id';
import { batchOf, insertBatch, pauseBatch, recentBatches, removeBatch } from './queries';

/** Many addresses as one piece of work: made, paused, gone on with, tried again, taken away. */
export function listRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, newId, jobs, events } = context;
  const mine = (request: FastifyRequest): Batch => {
    const batch = batchOf(db, personOf(request).id, readId(request));
    if (!batch) throw new AppError('not_found', { what: 'list' });
    return batch;
  };

  app.get('/api/lists', (request): Batch[] => recentBatches(db, personOf(request).id));

  app.post('/api/lists', (request): Batch => {
    const me = personOf(request).id;
    const { id, text, name, tags, amount } = parse(batchSchema, request.body);
    const addresses = /\.csv$/i.test(name)
      ? [...new Set(Papa.parse<string[]>(text).data.flat().flatMap(addressesIn))]
      : addressesIn(text);
    if (addresses.length === 0) throw new AppError('no_addresses', {}, { field: 'text' });
    if (addresses.length > MOST_ADDRESSES)
      throw new AppError('too_many_addresses', { count: addresses.length, limit: MOST_ADDRESSES }, { field: 'text' });
    db.transaction(() => {
      if (!insertBatch(db, id, me, name || `${addresses.length} addresses`, now())) return;
      addresses.forEach((address, seq) => {
        const input = {
          sourceId: newId(),
          address,
          tags,
          polite: true as const,
          ...(amount === 'whole' ? {} : { choices: { amount } }),
        };
        insertJob(
          db,
          { id: newId(), personId: me, label: address, input, batch: { id, seq, host: new URL(address).host } },
          now(),
        );
      });
    });
    jobs.kick();
    return batchOf(db, me, id) ?? taken(id);
  });

  app.patch('/api/lists/:id', (request): Batch => {
    const batch = mine(request);
    const { paused } = parse(batchPatchSchema, request.body);
    pauseBatch(db, batch.id, paused);
    jobs.kick();
    return mine(request);
  });

  app.post('/api/lists/:id/again', (request): Batch => {
    const batch = mine(request);
    requeueFailedOf(db, batch.id);
    jobs.kick();
    return mine(request);
  });

  /** What of it waits is not fetched any more; what was kept stays. */
  app.delete('/api/lists/:id', (request, reply) => {
    const batch = mine(request);
    if (!removeBatch(db, personOf(request).id, batch.id)) {
      pauseBatch(db, batch.id, true);
      throw new AppError('still_running', { label: batch.label });
    }
    events.append({ type: 'arrivals', personId: personOf(request).id });
    return reply.code(204).send();
  });
}

const taken = (id: string): never => {
  throw new AppError('id_taken', { id });
};
