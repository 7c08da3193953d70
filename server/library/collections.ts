import type { FastifyInstance } from 'fastify';
import type { CollectionDetail, CollectionPut, ClassId, PersonId, SourceId } from '@avrelle/core/wire';
import { mustReadSource } from '../access/access';
import { isMember } from '../access/access-queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import { sourceRowsOf } from '../sources/queries';
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

/** A collection with what is in it, for somebody who may see it. */
function collectionDetail({ db }: Context, me: PersonId, id: string): CollectionDetail {
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
}

/** Its owner, and the class it is shared with. */
export const tellOfCollection = (
  { events }: Context,
  me: PersonId,
  { classId }: { readonly classId: ClassId | null },
): void => events.append({ type: 'library', personId: me, ...(classId ? { classId } : {}) });

/** Collections: making, sharing and removing them. */
export function collectionRoutes(app: FastifyInstance, context: Context): void {
  const { db, now } = context;
  const serve = serving(app, context);
  const detail = (me: PersonId, id: string): CollectionDetail => collectionDetail(context, me, id);

  serve('GET /api/collections/:id', ({ me, params }) => detail(me.id, params.id));

  serve('PUT /api/collections/:id', ({ me: { id: me }, params: { id }, body: put }) => {
    const before = collectionFor(db, me, id);
    checkPlace(context, me, id, put);
    db.transaction(() => {
      if (!before) {
        if (!insertCollection(db, { id, me }, put, now())) throw new AppError('id_taken', { id });
        checkListLimit(db, 'collections', me);
      } else {
        if (!before.owned) throw new AppError('not_yours', { what: 'collection', owner: before.ownerName });
        if (!updateCollection(db, me, id, put))
          throw new AppError('stale', { yours: put.version ?? 'none', current: before.version }, { current: before });
        if (before.classId && before.classId !== put.classId) tellOfCollection(context, me, before);
      }
      tellOfCollection(context, me, { classId: put.classId ?? null });
    });
    return detail(me, id);
  });

  serve('DELETE /api/collections/:id', ({ me: { id: me }, params: { id } }) => {
    const row = collectionFor(db, me, id)!;
    db.transaction(() => {
      deleteCollection(db, me, id, now());
      tellOfCollection(context, me, row);
    });
  });

  serve('POST /api/collections/:id/restore', ({ me: { id: me }, params: { id } }) =>
    db.transaction(() => {
      if (!restoreCollection(db, me, id)) throw new AppError('not_found', { what: 'collection' });
      const back = detail(me, id);
      tellOfCollection(context, me, back);
      return back;
    }),
  );

  serve('PUT /api/collections', ({ me, body: { ids } }) =>
    db.transaction(() => {
      placeCollections(db, me.id, ids);
      tellOfCollection(context, me.id, { classId: null });
    }),
  );
}

/** What is in them, and in which order. */
export function collectionItemRoutes(app: FastifyInstance, context: Context): void {
  const { db, now } = context;
  const serve = serving(app, context);

  serve('GET /api/sources/:id/collections', ({ me, params }) => collectionsHolding(db, me.id, params.id));

  serve('PUT /api/collections/:id/order', ({ me: { id: me }, params: { id }, body: order }) => {
    const row = collectionFor(db, me, id)!;
    db.transaction(() => {
      if (!orderCollection(db, id, order))
        throw new AppError(
          'stale',
          { yours: order.version, current: row.version },
          { current: collectionDetail(context, me, id) },
        );
      tellOfCollection(context, me, row);
    });
    return collectionDetail(context, me, id);
  });

  const change = (me: PersonId, id: string, sourceIds: readonly SourceId[], each: (sourceId: SourceId) => void) =>
    db.transaction(() => {
      for (const sourceId of sourceIds) {
        mustReadSource(db, me, sourceId);
        each(sourceId);
      }
      checkListLimit(db, 'sources', id);
      collectionChanged(db, id);
      tellOfCollection(context, me, collectionFor(db, me, id)!);
      return collectionDetail(context, me, id);
    });
  serve('POST /api/collections/:id/sources', ({ me, params: { id }, body: { sourceIds, section } }) => {
    const last = collectionFor(db, me.id, id)!.sections.length - 1;
    return change(me.id, id, sourceIds, (sourceId) =>
      addToCollection(db, me.id, { id, source: sourceId, section: Math.min(section, last) }, now()),
    );
  });
  serve('DELETE /api/collections/:id/sources', ({ me, params: { id }, body: { sourceIds } }) =>
    change(me.id, id, sourceIds, (sourceId) => takeFromCollection(db, id, sourceId)),
  );
}

/** One level deep, among one's own; shared only with a class one is in. */
function checkPlace({ db }: Pick<Context, 'db'>, me: PersonId, id: string, { parentId, classId }: CollectionPut): void {
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
