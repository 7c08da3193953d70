import type { FastifyInstance } from 'fastify';
import type { Kind } from '@avrelle/core/legend';
import type { Legends, Me, OwnedLegend, LegendOwnerId, ClassId } from '@avrelle/core/wire';
import { can } from '../access/access';
import { classesOf } from '../classes/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import { legendVersion, kindsOf, ownerOfKind, replaceKind, storeLegend, toReplace, usesOf } from './queries';

/** A person's own Legend and those of their classes; `:id` is the person or the class. */
export function legendRoutes(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;
  const serve = serving(app, context);

  serve('GET /api/legends', ({ me }) => legendsFor(context, me));

  serve('PUT /api/legends/:id', ({ me, params: { id }, body: put }) =>
    db.transaction(() => {
      const version = legendVersion(db, id);
      if (put.version !== version)
        throw new AppError(
          'stale',
          { yours: put.version, current: version },
          { current: ownedLegend(context, me, id) },
        );
      const kinds = put.kinds as readonly Kind[];
      for (const { code } of kinds)
        if (startsElsewhere(context, me, id, code))
          throw new AppError('invalid', {
            message: `The kind “${code}” belongs to another Key. Make a new one instead.`,
          });
      storeLegend(db, id, kinds);
      tell(context, me, id);
      return ownedLegend(context, me, id);
    }),
  );

  serve('POST /api/legends/:id/replace', ({ me, params: { id }, body: { from, to, ids } }) =>
    db.transaction(() => {
      if (to !== 'note' && ownerOfKind(db, me.id, to) !== id) throw new AppError('unknown_kind', { code: to });
      const found = toReplace(db, id, from, ids);
      for (const { id: annotationId } of found) replaceKind(db, annotationId, { to, owner: id }, now());
      for (const sourceId of new Set(found.map((a) => a.sourceId))) events.append({ type: 'source', sourceId });
      return { ids: found.map((a) => a.id) };
    }),
  );
}

function legendsFor(context: Context, me: Me): Legends {
  return {
    mine: ownedLegend(context, me, me.id),
    classes: classesOf(context.db, me.id).map((c) => ownedLegend(context, me, c.id, c.name)),
  };
}

function ownedLegend({ db }: Context, me: Me, ownerId: LegendOwnerId, className?: string): OwnedLegend {
  const mine = ownerId === me.id;
  return {
    ownerId,
    className: mine ? null : (className ?? classesOf(db, me.id).find((c) => c.id === ownerId)?.name ?? ''),
    kinds: mine ? kindsOf(db, ownerId) : kindsOf(db, ownerId, []),
    uses: usesOf(db, ownerId),
    version: legendVersion(db, ownerId),
    mayEdit: can(db, me.id, { thing: 'kinds', as: 'owner' }, ownerId),
  };
}

/**
 * The starting kinds are everybody's own; in a class's Legend every kind is one of its own, so that its code tells whose
 * it is.
 */
function startsElsewhere({ db }: Context, me: Me, ownerId: LegendOwnerId, code: string): boolean {
  const owner = ownerOfKind(db, me.id, code);
  return owner !== undefined && owner !== ownerId;
}

/** Whoever sees what is marked by this Legend looks at it anew. */
function tell({ db, events }: Context, me: Me, ownerId: LegendOwnerId): void {
  if (ownerId !== me.id) return events.append({ type: 'key', classId: ownerId as ClassId });
  events.append({ type: 'key', personId: me.id });
  for (const { id } of classesOf(db, me.id)) events.append({ type: 'key', classId: id });
}
