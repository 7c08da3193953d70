import type { FastifyInstance } from 'fastify';
import { orderSchema, READING_STATES, savedSearchSchema, sourceChangesSchema, tagChangeSchema, type DeletedSource, type LibraryOutline, type ReadingState, type SavedSearch, type TagPreview } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import { isMember } from '../classes/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import type { Asker } from '../find/asker';
import { countSources, readQuery } from '../find/find';
import { askerOf } from '../find/routes';
import { parse } from '../parse';
import { readId } from '../read-id';
import { canRead, replaceTags, setDeleted, shelve } from '../sources/queries';
import { mustOwn } from '../sources/routes';
import { KEPT_DAYS } from './remove-expired';
import { bearing, changeTag, collectionsOf, deletedOf, hasTag, insertSearch, placeSearches, removeSearch, searchesOf, stateCounts, tagCounts, tagsBeneath, tagUses, updateSearch } from './queries';

/** The Library beside its list of sources: what there is of everything, searches that are kept, and changes to many at once. */
export function libraryRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context, since = (): string => new Date(Date.parse(context.now()) - KEPT_DAYS * 86_400_000).toISOString();

  app.get('/api/library', (request): LibraryOutline => {
    const asker = askerOf(context, request), { me } = asker, states = Object.fromEntries(READING_STATES.map((s) => [s, 0])) as Record<ReadingState, number>;
    for (const row of stateCounts(db, me)) states[row.state] = row.count;
    return { all: Object.values(states).reduce((a, b) => a + b, 0), states, tags: tagCounts(db, me), collections: collectionsOf(db, me), searches: searchesOf(db, me).map((search) => ({ ...search, owned: search.owned === 1, count: countOf(context, search.query, asker) })), deleted: deletedOf(db, me, since()).length };
  });

  app.post('/api/sources/changes', (request, reply) => {
    const me = personOf(request), { changes } = parse(sourceChangesSchema, request.body);
    db.transaction(() => {
      for (const { id, state, tags, deleted } of changes) {
        if (!canRead(db, me.id, id)) throw new AppError('not_found', { what: 'source' });
        if (deleted) { mustOwn(context, me.id, id); setDeleted(db, id, context.now()); }
        if (state) shelve(db, me.id, id, { state }, context.now());
        if (tags) replaceTags(db, me.id, id, tags);
      }
      events.append({ type: 'library', personId: me.id });
    });
    return reply.code(204).send();
  });

  app.get('/api/sources/deleted', (request): DeletedSource[] => deletedOf(db, personOf(request).id, since()));

  app.put('/api/searches/:id', (request, reply) => {
    const me = personOf(request).id, id = readId(request), put = parse(savedSearchSchema, request.body), before = searchesOf(db, me).find((s) => s.id === id);
    readQuery(put.query);
    if (put.classId && !isMember(db, put.classId, me)) throw new AppError('not_in_class');
    if (before && before.owned === 0) throw new AppError('not_yours', { what: 'search', owner: before.ownerName });
    db.transaction(() => {
      if (!before) { if (!insertSearch(db, me, id, put)) throw new AppError('id_taken', { id }); } else if (!updateSearch(db, me, id, put)) throw new AppError('stale', { yours: put.version ?? 'none', current: before.version }, { current: before });
      for (const classId of new Set([put.classId, before?.classId])) events.append({ type: 'library', personId: me, ...(classId ? { classId } : {}) });
    });
    return reply.code(204).send();
  });

  app.delete('/api/searches/:id', (request, reply) => {
    const me = personOf(request).id, id = readId(request), before = searchesOf(db, me).find((s) => s.id === id);
    if (!before) throw new AppError('not_found', { what: 'search' });
    if (before.owned === 0) throw new AppError('not_yours', { what: 'search', owner: before.ownerName });
    db.transaction(() => { removeSearch(db, me, id); events.append({ type: 'library', personId: me, ...(before.classId ? { classId: before.classId } : {}) }); });
    return reply.code(204).send();
  });

  app.put('/api/searches', (request, reply) => {
    const me = personOf(request).id, { ids } = parse(orderSchema, request.body);
    db.transaction(() => { placeSearches(db, me, ids); events.append({ type: 'library', personId: me }); });
    return reply.code(204).send();
  });

  app.post('/api/tags/preview', (request): TagPreview => {
    const me = personOf(request).id, { from, to = '' } = parse(tagChangeSchema, request.body);
    return { ...tagUses(db, me, from), beneath: tagsBeneath(db, me, from), merges: to !== '' && to !== from && hasTag(db, me, to) };
  });

  app.post('/api/tags/change', (request, reply) => {
    const me = personOf(request).id, { from, to = '' } = parse(tagChangeSchema, request.body);
    if (to === from) return reply.code(204).send();
    if (to.startsWith(`${from}/`)) throw new AppError('invalid', { message: `“${from}” cannot go beneath itself. Give it another name first, or choose another place for it.` }, { field: 'to' });
    db.transaction(() => {
      const touched = bearing(db, me, from);
      changeTag(db, me, from, to, context.now());
      for (const { id, sourceId } of touched) events.append({ type: 'annotation', annotationId: id, sourceId, personId: me });
      events.append({ type: 'library', personId: me });
    });
    return reply.code(204).send();
  });
}

/** Null for a query that cannot be read any more. */
function countOf({ db }: Context, query: string, asker: Asker): SavedSearch['count'] {
  try {
    return countSources(db, readQuery(query), asker);
  } catch (error) {
    if (error instanceof AppError) return null;
    throw error;
  }
}
