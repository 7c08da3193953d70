import type { FastifyInstance } from 'fastify';
import type { Kind } from '@avrelle/core/key';
import { keyPutSchema, replaceKindSchema, type Keys, type Me, type OwnedKey, type Replaced } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import { classesOf, roleIn } from '../classes/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parse } from '../parse';
import { readId } from '../read-id';
import { keyVersion, kindsOf, ownerOfKind, replaceKind, storeKey, toReplace, usesOf } from './queries';

/** A person's own Key and those of their classes; `:id` is the person or the class. */
export function keyRoutes(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;

  app.get('/api/keys', (request): Keys => keysFor(context, personOf(request)));

  app.put('/api/keys/:id', (request): OwnedKey => {
    const me = personOf(request);
    const id = readId(request);
    const put = parse(keyPutSchema, request.body);
    return db.transaction(() => {
      mustOwn(context, me, id);
      const version = keyVersion(db, id);
      if (put.version !== version)
        throw new AppError('stale', { yours: put.version, current: version }, { current: ownedKey(context, me, id) });
      const kinds = put.kinds as readonly Kind[];
      for (const { code } of kinds)
        if (startsElsewhere(context, me, id, code))
          throw new AppError('invalid', {
            message: `The kind “${code}” belongs to another Key. Make a new one instead.`,
          });
      storeKey(db, id, kinds);
      tell(context, me, id);
      return ownedKey(context, me, id);
    });
  });

  /** Every annotation of one kind becomes one of another of the same Key. */
  app.post('/api/keys/:id/replace', (request): Replaced => {
    const me = personOf(request);
    const id = readId(request);
    const { from, to, ids } = parse(replaceKindSchema, request.body);
    return db.transaction(() => {
      mustOwn(context, me, id);
      if (to !== 'note' && ownerOfKind(db, me.id, to) !== id) throw new AppError('unknown_kind', { code: to });
      const found = toReplace(db, id, from, ids);
      for (const { id: annotationId } of found) replaceKind(db, annotationId, to, id, now());
      for (const sourceId of new Set(found.map((a) => a.source_id))) events.append({ type: 'source', sourceId });
      return { ids: found.map((a) => a.id) };
    });
  });
}

function keysFor(context: Context, me: Me): Keys {
  return {
    mine: ownedKey(context, me, me.id),
    classes: classesOf(context.db, me.id).map((c) => ownedKey(context, me, c.id, c.name)),
  };
}

function ownedKey({ db }: Context, me: Me, ownerId: string, className?: string): OwnedKey {
  const mine = ownerId === me.id;
  return {
    ownerId,
    className: mine ? null : (className ?? classesOf(db, me.id).find((c) => c.id === ownerId)?.name ?? ''),
    kinds: mine ? kindsOf(db, ownerId) : kindsOf(db, ownerId, []),
    uses: usesOf(db, ownerId),
    version: keyVersion(db, ownerId),
    mayEdit: mine || roleIn(db, ownerId, me.id) !== 'student',
  };
}

function mustOwn({ db }: Context, me: Me, ownerId: string): void {
  if (ownerId === me.id) return;
  const role = roleIn(db, ownerId, me.id);
  if (!role) throw new AppError('not_found', { what: 'Key' });
  if (role === 'student') throw new AppError('teachers_only', { role, action: 'change its Key' });
}

/** The starting kinds are everybody's own; in a class's Key every kind is one of its own, so that its code tells whose it is. */
function startsElsewhere({ db }: Context, me: Me, ownerId: string, code: string): boolean {
  const owner = ownerOfKind(db, me.id, code);
  return owner !== undefined && owner !== ownerId;
}

/** Whoever sees what is marked by this Key looks at it anew. */
function tell({ db, events }: Context, me: Me, ownerId: string): void {
  if (ownerId !== me.id) return events.append({ type: 'key', classId: ownerId });
  events.append({ type: 'key', personId: me.id });
  for (const { id } of classesOf(db, me.id)) events.append({ type: 'key', classId: id });
}
