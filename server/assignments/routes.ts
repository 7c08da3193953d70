import type { FastifyInstance } from 'fastify';
import type { AssignmentDetail, Me } from '@avrelle/core/wire';
import { roleIn } from '../access/access-queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { sendCsv } from '../export/csv';
import { serving } from '../serve';
import { assignmentDetail, assignmentsOf, weekOf } from './assignments';
import { assignmentOf, publishAgain, putAssignment } from './put';
import { passagesTable, studentsTable } from './reading-tables';
import { deleteAssignment, setExtension, setShown, takeExtension } from './queries';
import { readApart } from './together';

/** Readings that are set for a class. */
export function assignmentRoutes(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;
  const serve = serving(app, context);

  serve('GET /api/assignments', ({ me, query: { source } }) => assignmentsOf(db, me.id, { sourceId: source }));

  serve('GET /api/classes/:id/assignments', ({ me, params: { id } }) => ({
    assignments: assignmentsOf(db, me.id, { classId: id }),
    week: weekOf(db, me.id, id, now()),
  }));

  const detailOf = (me: Me, place: { readonly id: string; readonly sourceId: string }): AssignmentDetail => {
    const found = assignmentDetail(db, me.id, { classId: place.id, sourceId: place.sourceId });
    if (!found) throw new AppError('not_found', { what: 'reading' });
    return found;
  };
  serve('GET /api/classes/:id/assignments/:sourceId', ({ me, params }) => detailOf(me, params));
  serve.file('GET /api/classes/:id/assignments/:sourceId/students.csv', ({ me, params, reply }) =>
    sendCsv(reply, 'students.csv', studentsTable(db, me.id, detailOf(me, params))),
  );
  serve.file('GET /api/classes/:id/assignments/:sourceId/passages.csv', ({ me, params, reply }) =>
    sendCsv(reply, 'passages.csv', passagesTable(db, me.id, detailOf(me, params))),
  );

  serve('PUT /api/classes/:id/assignments/:sourceId', ({ me, params: { id, sourceId }, body }) =>
    putAssignment(context, me, { classId: id, sourceId }, body),
  );

  serve('POST /api/classes/:id/assignments/:sourceId/published', ({ me, params: { id, sourceId }, body }) =>
    publishAgain(context, me, { classId: id, sourceId }, body),
  );

  serve('DELETE /api/classes/:id/assignments/:sourceId', ({ params: { id, sourceId } }) =>
    db.transaction(() => {
      readApart(context, { classId: id, sourceId });
      if (deleteAssignment(db, { classId: id, sourceId })) events.append({ type: 'classes', classId: id, sourceId });
    }),
  );

  serve('POST /api/classes/:id/assignments/:sourceId/shown', ({ me, params: { id, sourceId }, body: { shown } }) =>
    db.transaction(() => {
      const place = { classId: id, sourceId };
      assignmentOf(context, me, place);
      if (setShown(db, place, shown ? now() : null)) events.append({ type: 'classes', ...place });
      return assignmentOf(context, me, place);
    }),
  );

  serve(
    'PUT /api/classes/:id/assignments/:sourceId/extensions/:personId',
    ({ me, params: { id, sourceId, personId }, body: { dueAt } }) =>
      db.transaction(() => {
        const place = { classId: id, sourceId };
        const set = assignmentOf(context, me, place);
        if (roleIn(db, id, personId) !== 'student') throw new AppError('not_found', { what: 'student' });
        if (dueAt === null) takeExtension(db, place, personId);
        else if (set.dueAt === null || dueAt <= set.dueAt) throw new AppError('not_later', {}, { field: 'dueAt' });
        else setExtension(db, place, personId, { dueAt, passed: dueAt <= now() });
        events.append({ type: 'classes', ...place });
      }),
  );
}
