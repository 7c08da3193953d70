import type { FastifyInstance } from 'fastify';
import type { Annotation, AnnotationId, ClassId, PersonId } from '@avrelle/core/wire';
import { annotationFor, forClasses, repliesOf, setEndorsed, setHidden } from '../annotations/queries';
import { membershipsOf } from '../classes/queries';
import type { Context } from '../context';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { askerOf } from '../find/asker-of';
import { readQuery } from '../find/find';
import { tellOfOwn } from '../notifications/told-queries';
import { serving } from '../serve';
import { putReport, reportsIn, settle } from './report-queries';
import { seeThreads, star, starsOn, threadsOf, unstar } from './queries';

/** The threads of a class in one place. */
export function discussionRoutes(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;
  const serve = serving(app, context);

  serve('GET /api/classes/:id/threads', ({ me, params: { id }, query }) => {
    const { q, source, only, offset, limit, sort = 'answered' } = query;
    return threadsOf(db, askerOf(context, me.id, query), {
      ...{ classId: id, sourceId: source, query: readQuery(q), sort, only, offset, limit },
    });
  });

  serve('POST /api/classes/:id/threads/seen', ({ me, params: { id }, body: { sourceId } }) =>
    db.transaction(() => {
      if (seeThreads(db, me.id, { classId: id, sourceId }, now()) > 0)
        events.append({ type: 'threads', personId: me.id });
    }),
  );

  serve('PUT /api/classes/:id/annotations/:annotationId/endorsed', ({ me, params, body: { endorsed } }) =>
    db.transaction(() => {
      const { id, sourceId } = writtenFor(db, me.id, params);
      setEndorsed(db, id, endorsed ? me.id : null);
      events.append({ type: 'annotation', annotationId: id, sourceId });
      return annotationFor(db, me.id, id)!;
    }),
  );

  serve('PUT /api/classes/:id/annotations/:annotationId/hidden', ({ me, params, body: { reason } }) =>
    db.transaction(() => {
      const { id, author, sourceId } = writtenFor(db, me.id, params);
      const formerClasses = forClasses(db, id);
      setHidden(db, { id, classId: params.id }, { reason, by: reason === null ? null : me.id });
      for (const annotationId of [id, ...repliesOf(db, id)])
        events.append({ type: 'annotation', annotationId, sourceId, formerClasses });
      if (reason !== null && author.id !== me.id) {
        tellOfOwn(db, { id: context.newId(), person: author.id, annotation: id, now: now() });
        events.append({ type: 'desk', personId: author.id });
      }
      return annotationFor(db, me.id, id)!;
    }),
  );

  serve('GET /api/sources/:id/stars', ({ me, params: { id } }) => starsOn(db, me.id, id));

  serve('PUT /api/annotations/:id/star', ({ me, params: { id }, body: { starred } }) =>
    db.transaction(() => {
      if (!annotationFor(db, me.id, id)) throw new AppError('not_found', { what: 'annotation' });
      const changed = starred ? star(db, me.id, id, now()) : unstar(db, me.id, id);
      if (changed > 0) events.append({ type: 'threads', personId: me.id });
    }),
  );

  reportRoutes(app, context);
}

/** What is reported to the teachers of a class. */
function reportRoutes(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;
  const serve = serving(app, context);

  serve('GET /api/classes/:id/reports', ({ params: { id } }) => reportsIn(db, id));

  serve('PUT /api/classes/:id/annotations/:annotationId/report', ({ me, params, body: { words } }) =>
    db.transaction(() => {
      const { id } = writtenFor(db, me.id, params);
      putReport(db, { classId: params.id, annotationId: id }, { person: me.id, words, now: now() });
      tellTeachers(params.id);
    }),
  );

  serve('PUT /api/classes/:id/annotations/:annotationId/settled', ({ params: { id, annotationId } }) =>
    db.transaction(() => {
      if (settle(db, { classId: id, annotationId }, now()) > 0) tellTeachers(id);
    }),
  );

  /** What is reported stands on their Desk. */
  const tellTeachers = (classId: ClassId): void => {
    for (const { personId, role } of membershipsOf(db, [classId]))
      if (role !== 'student') for (const type of ['desk', 'threads'] as const) events.append({ type, personId });
  };
}

/** What stands in the class of an address. Throws `not_found`. */
function writtenFor(
  db: Db,
  me: PersonId,
  { id, annotationId }: { readonly id: ClassId; readonly annotationId: AnnotationId },
): Annotation {
  const found = annotationFor(db, me, annotationId);
  if (!found || found.deleted || !forClasses(db, annotationId).some((one) => one.classId === id))
    throw new AppError('not_found', { what: 'annotation' });
  return found;
}
