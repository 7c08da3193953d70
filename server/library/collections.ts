import type { FastifyInstance, FastifyRequest } from 'fastify';
import {
  collectionOrderSchema,
  collectionPutSchema,
  collectionSourcesSchema,
  orderSchema,
  type CollectionDetail,
  type CollectionPut,
} from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import { isMember } from '../classes/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parse } from '../parse';
import { readId } from '../read-id';
import { canRead, sourceRowsOf } from '../sources/queries';
import {
  addToCollection,
  collectionChanged,
  collectionFor,
  collectionsHolding,
  collectionsOf,
  deleteCollection,
  hasCollections,
  insertCollection,
  itemsOf,
  orderCollection,
  placeCollections,
  restoreCollection,
  takeFromCollection,
  updateCollection,
} from './queries';
import { checkListLimit } from '../list-limit-queries';

type Row = NonNullable<ReturnType<typeof collectionFor>>;

/** What all of their routes go by. */
function around(context: Context) {
  const { db } = context;
  const tell = (me: string, row: { readonly classId: string | null }): void => tellOfCollection(context, me, row);
  const found = (request: FastifyRequest): { me: string; row: Row } => {
    const me = personOf(request).id;
    const row = collectionFor(db, me, readId(request));
    if (!row) throw new AppError('not_found', { what: 'collection' });
    return { me, row };
  };
  const detail = (me: string, id: string): CollectionDetail => {
    const row = collectionFor(db, me, id)!;
    const items = itemsOf(db, id);
    const sections = new Map(items.map((i) => [i.id, i.section]));
    const rows = sourceRowsOf(
      db,
      me,
      items.map((i) => i.id),
    );
    return {
      ...row,
      items: rows.map((source) => ({ source, section: sections.get(source.id)! })),
      hidden: items.length - rows.length,
    };
  };
  const mayAdd = ({ me, row }: { me: string; row: Row }): void => void mayAddTo(context, me, row.id);

  return { tell, found, detail, mayAdd };
}

/** Its owner, and the class it is shared with. */
export const tellOfCollection = (
  { events }: Context,
  me: string,
  { classId }: { readonly classId: string | null },
): void => events.append({ type: 'library', personId: me, ...(classId ? { classId } : {}) });

/** The collection, for its owner, and for the class where they may add to it. Throws `not_found`, `not_yours`. */
export function mayAddTo({ db }: Context, me: string, id: string): Row {
  const row = collectionFor(db, me, id);
  if (!row || (!row.owned && (!row.classId || !isMember(db, row.classId, me))))
    throw new AppError('not_found', { what: 'collection' });
  if (!row.owned && row.may !== 'add') throw new AppError('not_yours', { what: 'collection', owner: row.ownerName });
  return row;
}

/** Collections: making, sharing and removing them. */
export function collectionRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const { tell, found, detail } = around(context);

  app.get('/api/collections/:id', (request): CollectionDetail => {
    const { me, row } = found(request);
    return detail(me, row.id);
  });

  app.put('/api/collections/:id', (request): CollectionDetail => {
    const me = personOf(request).id;
    const id = readId(request);
    const put = parse(collectionPutSchema, request.body);
    const before = collectionFor(db, me, id);
    checkPlace(context, me, id, put);
    db.transaction(() => {
      if (!before) {
        if (!insertCollection(db, me, id, put, context.now())) throw new AppError('id_taken', { id });
        checkListLimit(db, 'collections', me);
      } else {
        if (!before.owned) throw new AppError('not_yours', { what: 'collection', owner: before.ownerName });
        if (!updateCollection(db, me, id, put))
          throw new AppError('stale', { yours: put.version ?? 'none', current: before.version }, { current: before });
        if (before.classId && before.classId !== put.classId) tell(me, before);
      }
      tell(me, { classId: put.classId ?? null });
    });
    return detail(me, id);
  });

  app.delete('/api/collections/:id', (request, reply) => {
    const { me, row } = found(request);
    if (!row.owned) throw new AppError('not_yours', { what: 'collection', owner: row.ownerName });
    db.transaction(() => {
      deleteCollection(db, me, row.id, context.now());
      tell(me, row);
    });
    return reply.code(204).send();
  });

  app.post('/api/collections/:id/restore', (request): CollectionDetail => {
    const me = personOf(request).id;
    const id = readId(request);
    return db.transaction(() => {
      if (!restoreCollection(db, me, id)) throw new AppError('not_found', { what: 'collection' });
      const back = detail(me, id);
      tell(me, back);
      return back;
    });
  });

  app.put('/api/collections', (request, reply) => {
    const me = personOf(request).id;
    const { ids } = parse(orderSchema, request.body);
    db.transaction(() => {
      placeCollections(db, me, ids);
      tell(me, { classId: null });
    });
    return reply.code(204).send();
  });
}

/** What is in them, and in which order. */
export function collectionItemRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const { tell, found, detail, mayAdd } = around(context);

  app.get('/api/sources/:id/collections', (request): string[] => {
    const me = personOf(request).id;
    const id = readId(request);
    if (!canRead(db, me, id)) throw new AppError('not_found', { what: 'source' });
    return collectionsHolding(db, me, id);
  });

  app.put('/api/collections/:id/order', (request): CollectionDetail => {
    const who = found(request);
    const { me, row } = who;
    const order = parse(collectionOrderSchema, request.body);
    mayAdd(who);
    db.transaction(() => {
      if (!orderCollection(db, row.id, order))
        throw new AppError('stale', { yours: order.version, current: row.version }, { current: detail(me, row.id) });
      tell(me, row);
    });
    return detail(me, row.id);
  });

  for (const [method, adds] of [
    ['POST', true],
    ['DELETE', false],
  ] as const) {
    app.route({
      method,
      url: '/api/collections/:id/sources',
      handler: (request): CollectionDetail => {
        const who = found(request);
        const { me, row } = who;
        const { sourceIds, section } = parse(collectionSourcesSchema, request.body);
        mayAdd(who);
        db.transaction(() => {
          for (const id of sourceIds) {
            if (!canRead(db, me, id)) throw new AppError('not_found', { what: 'source' });
            if (adds) addToCollection(db, me, row.id, id, Math.min(section, row.sections.length - 1), context.now());
            else takeFromCollection(db, row.id, id);
          }
          checkListLimit(db, 'sources', row.id);
          collectionChanged(db, row.id);
          tell(me, row);
        });
        return detail(me, row.id);
      },
    });
  }
}

/** One level deep, among one's own; shared only with a class one is in. */
function checkPlace({ db }: Pick<Context, 'db'>, me: string, id: string, { parentId, classId }: CollectionPut): void {
  if (classId && !isMember(db, classId, me)) throw new AppError('not_in_class');
  if (!parentId) return;
  const parent = collectionsOf(db, me).find((c) => c.id === parentId);
  if (!parent?.owned) throw new AppError('not_found', { what: 'collection' });
  if (parentId === id || parent.parentId !== null || hasCollections(db, id))
    throw new AppError(
      'invalid',
      {
        message: `A collection can stand in another, and no deeper: choose one that stands in none${hasCollections(db, id) ? ', and take out those that are in this one first' : ''}.`,
      },
      { field: 'parentId' },
    );
}
