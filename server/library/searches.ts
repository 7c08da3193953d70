import type { FastifyInstance } from 'fastify';
import { isMember } from '../access/access-queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { readQuery } from '../find/find';
import { serving } from '../serve';
import { insertSearch, placeSearches, removeSearch, searchesOf, updateSearch } from './queries';
import { checkListLimit } from '../list-limit-queries';

/** Searches that are kept under a name. */
export function searchRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;
  const serve = serving(app, context);

  serve('PUT /api/searches/:id', ({ me: { id: me }, params: { id }, body: put }) => {
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
  });

  serve('DELETE /api/searches/:id', ({ me: { id: me }, params: { id } }) => {
    const { classId } = searchesOf(db, me).find((s) => s.id === id)!;
    db.transaction(() => {
      removeSearch(db, me, id);
      events.append({ type: 'library', personId: me, ...(classId ? { classId } : {}) });
    });
  });

  serve('PUT /api/searches', ({ me: { id: me }, body: { ids } }) => {
    db.transaction(() => {
      placeSearches(db, me, ids);
      events.append({ type: 'library', personId: me });
    });
  });
}
