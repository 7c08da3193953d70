import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serving } from '../serve';
import { heldIn, see, setReleaseTime } from './queries';
import { release, takeBack } from './release';

/** What is held from the students of a class, and its release. */
export function heldRoutes(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;
  const serve = serving(app, context);

  serve('GET /api/classes/:id/held', ({ params: { id } }) => heldIn(db, id));

  serve('POST /api/classes/:id/held/release', ({ me, params: { id }, body: { annotationIds, at } }) =>
    db.transaction(() => {
      if (at === undefined || (at !== null && at <= now()))
        return { changed: release(context, { classId: id, by: me.id }, annotationIds) };
      const changed = setReleaseTime(db, { classId: id, annotationIds }, at);
      if (changed > 0) events.append({ type: 'classes', classId: id });
      return { changed };
    }),
  );

  serve('POST /api/classes/:id/held/back', ({ params: { id }, body: { annotationIds } }) =>
    db.transaction(() => ({ changed: takeBack(context, id, annotationIds) })),
  );

  serve('POST /api/annotations/seen', ({ me, body: { annotationIds } }) =>
    db.transaction(() => {
      if (see(db, me.id, annotationIds, now()) > 0) events.append({ type: 'threads', personId: me.id });
    }),
  );
}
