import type { FastifyInstance } from 'fastify';
import type { Notifications, PersonId } from '@avrelle/core/wire';
import { annotationFor } from '../annotations/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import { receiverOf } from './digest-queries';
import { follow, followsOf, sharesClass, unfollow, type Followed } from './follow-queries';
import { nextDigest } from './next-digest';
import { stopHash } from './send-digests';
import { endSchedule, kindSettings, mutedBy, scheduleOf, setKinds, setMuted, setSchedule } from './settings-queries';

/** At which hour mails come where nothing else was chosen. */
const MORNING = 7;

/** Of what one is told, where, and what one follows. */
export function notificationRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, events, config } = context;
  const serve = serving(app, context);
  const settingsOf = ({ id, email }: { readonly id: PersonId; readonly email: string }): Notifications => {
    const { every, hour, zone } = scheduleOf(db, id) ?? { every: 'never', hour: MORNING, zone: 'UTC' };
    return {
      ...{ every, hour, zone, email },
      kinds: kindSettings(db, id),
      sends: config.smtp !== null,
      muted: mutedBy(db, id),
    };
  };

  serve('GET /api/notifications', ({ me }) => settingsOf(me));
  serve('PUT /api/notifications', ({ me, body: { every, hour, zone, kinds } }) =>
    db.transaction(() => {
      if (every === 'never') endSchedule(db, me.id);
      else setSchedule(db, me.id, { every, hour, zone, nextAt: nextDigest({ every, hour, zone }, now()) });
      setKinds(db, me.id, kinds);
      events.append({ type: 'desk', personId: me.id });
      return settingsOf(me);
    }),
  );
  serve('PUT /api/classes/:id/muted', ({ me, params: { id }, body: { muted } }) =>
    db.transaction(() => {
      if (setMuted(db, me.id, id, muted)) events.append({ type: 'desk', personId: me.id });
    }),
  );

  const set = (me: PersonId, followed: Followed, following: boolean): void =>
    db.transaction(() => {
      const changed = following ? follow(db, me, followed, now()) : unfollow(db, me, followed);
      if (changed) events.append({ type: 'desk', personId: me });
    });
  serve('GET /api/follows', ({ me }) => followsOf(db, me.id));
  serve('PUT /api/sources/:id/followed', ({ me, params: { id }, body: { following } }) =>
    set(me.id, { sourceId: id }, following),
  );
  serve('PUT /api/annotations/:id/followed', ({ me, params: { id }, body: { following } }) => {
    const found = annotationFor(db, me.id, id);
    // What one no longer sees can be let go of all the same.
    if (!found && following) throw new AppError('not_found', { what: 'annotation' });
    set(me.id, { rootId: found?.rootId ?? id }, following);
  });
  serve('PUT /api/people/:id/followed', ({ me, params: { id }, body: { following } }) => {
    if (following && !sharesClass(db, me.id, id)) throw new AppError('not_found', { what: 'person' });
    set(me.id, { authorId: id }, following);
  });

  /** Once more, it is the same. Nobody guesses such an address, so one that ends nothing says so. */
  serve('POST /stop-mails/:hash', ({ params: { hash } }) => {
    const receiver = receiverOf(db, stopHash(hash));
    if (receiver === undefined) throw new AppError('not_found', { what: 'mail' });
    endSchedule(db, receiver);
  });
}
