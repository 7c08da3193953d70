import type { FastifyInstance } from 'fastify';
import {
  annotationChangesSchema,
  annotationPatchSchema,
  annotationPutSchema,
  placeSchema,
  replyPutSchema,
  type Annotation,
} from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parse } from '../parse';
import { readId } from '../read-id';
import { canRead } from '../sources/queries';
import { versionIdIn } from '../versions/version-in';
import { annotationFor, annotationsOf } from './queries';
import { patchAnnotation, patchAnnotations, placeAnnotation, putAnnotation, putReply } from './write';

export function annotationRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;

  app.get('/api/sources/:id/annotations', (request): Annotation[] => {
    const me = personOf(request);
    const id = readId(request);
    if (!canRead(db, me.id, id)) throw new AppError('not_found', { what: 'source' });
    return annotationsOf(db, me.id, id, versionIdIn(context, request, id));
  });

  app.get('/api/annotations/:id', (request): Annotation => {
    const found = annotationFor(db, personOf(request).id, readId(request));
    if (!found) throw new AppError('not_found', { what: 'annotation' });
    return found;
  });

  app.put('/api/annotations/:id', (request): Annotation =>
    putAnnotation(context, personOf(request), readId(request), parse(annotationPutSchema, request.body)),
  );
  app.put('/api/annotations/:id/place', (request): Annotation =>
    placeAnnotation(context, personOf(request), readId(request), parse(placeSchema, request.body)),
  );
  app.put('/api/replies/:id', (request): Annotation =>
    putReply(context, personOf(request), readId(request), parse(replyPutSchema, request.body)),
  );
  app.post('/api/annotations/changes', (request): Annotation[] =>
    patchAnnotations(context, personOf(request), parse(annotationChangesSchema, request.body).changes),
  );
  app.patch('/api/annotations/:id', (request): Annotation =>
    patchAnnotation(context, personOf(request), readId(request), parse(annotationPatchSchema, request.body)),
  );
}
