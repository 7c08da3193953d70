import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serving } from '../serve';
import { askerOf } from './asker-of';
import { annotationPage, readQuery, sourcePage } from './find';

export function findRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const serve = serving(app, context);

  serve('GET /api/sources', ({ me, query }) => {
    const { q, offset, limit, passages, sort = q ? 'best' : 'touched' } = query;
    const page = { sort, offset, limit, passages: passages === 'yes' };
    return sourcePage(db, readQuery(q), askerOf(context, me.id, query), page);
  });

  serve('GET /api/annotations', ({ me, query }) => {
    const { q, offset, limit, by, sort = q ? 'best' : 'newest' } = query;
    return annotationPage(db, readQuery(q), askerOf(context, me.id, query), { sort, offset, limit, by });
  });
}
