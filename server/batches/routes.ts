import type { FastifyInstance } from 'fastify';
import { addressesIn } from '@avrelle/core/gather';
import { MOST_ADDRESSES, type Batch, type PersonId } from '@avrelle/core/wire';
import Papa from 'papaparse';
import type { Context } from '../context';
import { AppError } from '../errors';
import type { JobInput } from '../jobs/job-input';
import { insertJob, requeueFailedOf } from '../jobs/queries';
import { serving } from '../serve';
import { batchOf, insertBatch, pauseBatch, recentBatches, removeBatch } from './queries';

/** Many addresses as one piece of work: made, paused, gone on with, tried again, taken away. */
export function batchRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, newId, jobs, events } = context;
  const serve = serving(app, context);
  const changed = (me: PersonId, id: string): Batch => {
    jobs.kick();
    return batchOf(db, me, id)!;
  };

  serve('GET /api/lists', ({ me }) => recentBatches(db, me.id));

  serve('POST /api/lists', ({ me: { id: me }, body: { id, text, name, tags, amount } }) => {
    const addresses = /\.csv$/i.test(name)
      ? [...new Set(Papa.parse<string[]>(text).data.flat().flatMap(addressesIn))]
      : addressesIn(text);
    if (addresses.length === 0) throw new AppError('no_addresses', {}, { field: 'text' });
    if (addresses.length > MOST_ADDRESSES)
      throw new AppError('too_many_addresses', { count: addresses.length, limit: MOST_ADDRESSES }, { field: 'text' });
    db.transaction(() => {
      if (!insertBatch(db, { id, personId: me, label: name || `${addresses.length} addresses` }, now())) return;
      addresses.forEach((address, seq) => {
        const input: JobInput = {
          origin: { type: 'address', address, polite: true, ...(amount === 'whole' ? {} : { choices: { amount } }) },
          target: { type: 'source', sourceId: newId(), tags },
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

  serve('PATCH /api/lists/:id', ({ me, params: { id }, body: { paused } }) => {
    pauseBatch(db, id, paused);
    return changed(me.id, id);
  });

  serve('POST /api/lists/:id/again', ({ me, params: { id } }) => {
    requeueFailedOf(db, id);
    return changed(me.id, id);
  });

  serve('DELETE /api/lists/:id', ({ me, params: { id } }) => {
    if (!removeBatch(db, me.id, id)) {
      pauseBatch(db, id, true);
      throw new AppError('still_running', { label: batchOf(db, me.id, id)!.label });
    }
    events.append({ type: 'arrivals', personId: me.id });
  });
}

const taken = (id: string): never => {
  throw new AppError('id_taken', { id });
};
