import { randomBytes } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { mustNotBeArchived } from '../classes/archived';
import type { Context } from '../context';
import { tellClass } from '../notifications/tell-class';
import { AppError } from '../errors';
import { serving } from '../serve';
import { takeIn } from './join';
import { joinCode } from './join-code';
import { linkToken } from './link-token';
import { askerIn, closeCode, deleteLink, insertLink, joiningOf, linkOf, refuse, setCode, setJoining } from './queries';
import { addRoster, readRoster } from './roster';

/** What who teaches a class does about who joins it. */
export function classRoutesOf(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;
  const serve = serving(app, context);

  serve('GET /api/classes/:id/joining', ({ params: { id } }) => joiningOf(db, id));

  serve('PUT /api/classes/:id/joining', ({ params: { id }, body: { joining, askable } }) =>
    db.transaction(() => {
      setJoining(db, id, joining, askable);
      events.append({ type: 'classes', classId: id });
    }),
  );

  serve('POST /api/classes/:id/code', ({ params: { id } }) =>
    db.transaction(() => {
      mustNotBeArchived(db, id);
      const code = joinCode(randomBytes);
      setCode(db, id, code);
      events.append({ type: 'classes', classId: id });
      return { code };
    }),
  );

  serve('DELETE /api/classes/:id/code', ({ params: { id } }) =>
    db.transaction(() => {
      closeCode(db, id);
      events.append({ type: 'classes', classId: id });
    }),
  );

  serve('PUT /api/classes/:id/requests/:requestId', ({ me, params: { id, requestId }, body: { letIn } }) =>
    db.transaction(() => {
      const personId = askerIn(db, id, requestId);
      if (personId === undefined) throw new AppError('not_found', { what: 'request' });
      if (letIn) {
        mustNotBeArchived(db, id);
        tellClass(context, { classId: id }, me.id, [personId]);
        return void takeIn(context, { classId: id, personId });
      }
      refuse(db, requestId, now());
      events.append({ type: 'classes', classId: id, personId });
      events.append({ type: 'desk', classId: id });
    }),
  );

  linkRoutes(app, context);
  rosterRoutes(app, context);
}

/** Links that are for whoever has them. */
function linkRoutes(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;
  const serve = serving(app, context);

  serve('PUT /api/classes/:id/links/:linkId', ({ me, params: { id, linkId }, body: { days, uses } }) =>
    db.transaction(() => {
      mustNotBeArchived(db, id);
      const at = now();
      const expiresAt = days === null ? null : new Date(Date.parse(at) + days * 86_400_000).toISOString();
      const whose = { forWhom: null, email: null, role: 'student', madeBy: me.id } as const;
      const link = { id: linkId, classId: id, token: linkToken(), madeAt: at, expiresAt, most: uses, ...whose };
      if (insertLink(db, link)) events.append({ type: 'classes', classId: id });
      const made = linkOf(db, id, linkId);
      if (!made) throw new AppError('not_found', { what: 'link' });
      return made;
    }),
  );

  serve('DELETE /api/classes/:id/links/:linkId', ({ params: { id, linkId } }) =>
    db.transaction(() => {
      if (!deleteLink(db, id, linkId)) throw new AppError('not_found', { what: 'link' });
      events.append({ type: 'classes', classId: id });
    }),
  );
}

/** People from a list. */
function rosterRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const serve = serving(app, context);
  for (const type of ['text/csv', 'application/zip', 'application/octet-stream'])
    if (!app.hasContentTypeParser(type))
      app.addContentTypeParser(type, { parseAs: 'buffer' }, (_request, body, done) => done(null, body));

  serve('POST /api/classes/:id/roster/preview', ({ params: { id }, request }) => {
    const bytes = request.body;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0) throw new AppError('no_file', {}, { field: 'file' });
    return readRoster(context, id, bytes);
  });

  serve('POST /api/classes/:id/roster', ({ me, params: { id }, body: { people } }) =>
    db.transaction(() => {
      mustNotBeArchived(db, id);
      return addRoster(context, { classId: id, by: me.id }, people);
    }),
  );
}
