import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import { versionIdOf } from '../versions/version-id';
import { annotationFor, annotationsOf } from './queries';
import { patchAnnotation, patchAnnotations, placeAnnotation, putAnnotation, putReply } from './write';

export function annotationRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const serve = serving(app, context);

  serve('GET /api/sources/:id/annotations', ({ me, params: { id }, query }) =>
    annotationsOf(db, me.id, id, versionIdOf(db, id, query.version)),
  );

  serve('GET /api/annotations/:id', ({ me, params }) => {
    const found = annotationFor(db, me.id, params.id);
    if (!found) throw new AppError('not_found', { what: 'annotation' });
    return found;
  });

  serve('PUT /api/annotations/:id', ({ me, params, body }) => putAnnotation(context, me, params.id, body));
  serve('PATCH /api/annotations/:id', ({ me, params, body }) => patchAnnotation(context, me, params.id, body));
  serve('POST /api/annotations/changes', ({ me, body }) => patchAnnotations(context, me, body.changes));
  serve('PUT /api/annotations/:id/place', ({ me, params, body }) => placeAnnotation(context, me, params.id, body));
  serve('PUT /api/replies/:id', ({ me, params, body }) => putReply(context, me, params.id, body));
}
