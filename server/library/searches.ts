import type { FastifyInstance } from 'fastify';
import { orderSchema, savedSearchSchema } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import { isMember } from '../classes/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { readQuery } from '../find/find';
import { parse } from '../parse';
import { readId } from '../read-id';
import { insertSearch, placeSearches, removeSearch, searchesOf, updateSearch } from './queries';
import { checkListLimit } from '../list-limit-queries';

/** Searches that are kept under a name. */
export function searchRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;

  app.put('/api/searches/:id', (request, reply) => {
    const me = personOf(request).id;
    const id = readId(request);
    const put = parse(savedSearchSchema, request.body);
    const before = searchesOf(db, me).find((s) => s.id === id);
    readQuery(put.query);
    if (put.classId && !isMember(db, put.classId, me)) throw new AppError('not_in_class');
    if (before && before.owned === 0) throw new AppError('not_yours', { what: 'search', owner: before.ownerName });
    db.transaction(() => {
      if (!before) {
        if (!insertSearch(db, me, id, put)) throw new AppError('id_taken', { id });
        checkListLimit(db, 'searches', me);
      } else if (!updateSearch(db, me, id, put))
        throw new AppError('stale', { yours: put.version ?? 'none', current: before.version }, { current: before });
      for (const classId of new Set([put.classId, before?.classId]))
        events.append({ type: 'library', personId: me, ...(classId ? { classId } : {}) });
    });
    return reply.code(204).send();
  });

  app.delete('/api/searches/:id', (request, reply) => {
    const me = personOf(request).id;
    const id = readId(request);
    const before = searchesOf(db, me).find((s) => s.id === id);
    if (!before) throw new AppError('not_found', { what: 'search' });
    if (before.owned === 0) throw new AppError('not_yours', { what: 'search', owner: before.ownerName });
    db.transaction(() => {
      removeSearch(db, me, id);
      events.append({ type: 'library', personId: me, ...(before.classId ? { classId: before.classId } : {}) });
    });
    return reply.code(204).send();
  });

  app.put('/api/searches', (request, reply) => {
    const me = personOf(request).id;
    const { ids } = parse(orderSchema, request.body);
    db.transaction(() => {
      placeSearches(db, me, ids);
      events.append({ type: 'library', personId: me });
    });
    return reply.code(204).send();
  });
}
