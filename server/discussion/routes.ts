import type { FastifyInstance } from 'fastify';
import { annotationFor } from '../annotations/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { askerOf } from '../find/asker-of';
import { readQuery } from '../find/find';
import { serving } from '../serve';
import { seeThreads, star, threadsOf, unstar } from './queries';

/** The threads of a class in one place. */
export function discussionRoutes(app: FastifyInstance, context: Context): void {
  const { db, now } = context;
  const serve = serving(app, context);

  serve('GET /api/classes/:id/threads', ({ me, params: { id }, query }) => {
    const { q, source, only, offset, limit, sort = 'answered' } = query;
    return threadsOf(db, askerOf(context, me.id, query), {
      ...{ classId: id, sourceId: source, query: readQuery(q), sort, only, offset, limit },
    });
  });

  serve('POST /api/classes/:id/threads/seen', ({ me, params: { id }, body: { sourceId } }) =>
    db.transaction(() => void seeThreads(db, me.id, { classId: id, sourceId }, now())),
  );

  serve('PUT /api/annotations/:id/star', ({ me, params: { id }, body: { starred } }) =>
    db.transaction(() => {
      if (!annotationFor(db, me.id, id)) throw new AppError('not_found', { what: 'annotation' });
      if (starred) star(db, me.id, id, now());
      else unstar(db, me.id, id);
    }),
  );
}
