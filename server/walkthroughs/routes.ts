import type { FastifyInstance, FastifyRequest } from 'fastify';
import { fileNameOf } from '@avrelle/core/export';
import type { Context } from '../context';
import { AppError } from '../errors';
import { sendFile } from '../export/attachment';
import { originOf } from '../export/routes';
import { serving } from '../serve';
import { setWalkthroughDeleted, starredNotes, walkthroughsIn } from './queries';
import { walkthroughPage, walkthroughText } from './take-out';
import { copyWalkthrough, putWalkthrough, walkthroughOf } from './walkthroughs';

/** Walkthroughs of a class, for who teaches it. */
export function walkthroughRoutes(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;
  const serve = serving(app, context);

  serve('GET /api/classes/:id/walkthroughs', ({ params: { id } }) => walkthroughsIn(db, id));
  serve('GET /api/classes/:id/starred', ({ me, params: { id } }) => starredNotes(db, me.id, id));
  serve('GET /api/classes/:id/walkthroughs/:walkthroughId', ({ me, params: { id, walkthroughId } }) =>
    walkthroughOf(context, me, id, walkthroughId),
  );
  serve('PUT /api/classes/:id/walkthroughs/:walkthroughId', ({ me, params: { id, walkthroughId }, body }) =>
    putWalkthrough(context, me, { classId: id, id: walkthroughId }, body),
  );

  const setDeleted = (classId: string, id: string, at: string | null): void =>
    db.transaction(() => {
      if (!setWalkthroughDeleted(db, classId, id, at)) throw new AppError('not_found', { what: 'walkthrough' });
      events.append({ type: 'walkthroughs', classId });
    });
  serve('DELETE /api/classes/:id/walkthroughs/:walkthroughId', ({ params: { id, walkthroughId } }) =>
    setDeleted(id, walkthroughId, now()),
  );
  serve('POST /api/classes/:id/walkthroughs/:walkthroughId/restore', ({ params: { id, walkthroughId } }) =>
    setDeleted(id, walkthroughId, null),
  );
  serve('POST /api/classes/:id/walkthroughs/:walkthroughId/copy', ({ me, params: { id, walkthroughId }, body }) =>
    copyWalkthrough(context, me, { classId: id, id: walkthroughId }, body),
  );

  serve.file('GET /api/classes/:id/walkthroughs/:walkthroughId/steps.md', ({ me, params, request, reply }) => {
    const { name, text } = walkthroughText(context, me, asked(params, request));
    return sendFile(reply, { type: 'text/markdown', name: `${fileNameOf(name)}.md` }, text);
  });
  serve.file('GET /api/classes/:id/walkthroughs/:walkthroughId/steps.html', ({ me, params, request, reply }) => {
    const { name, text } = walkthroughText(context, me, asked(params, request));
    return sendFile(reply, { type: 'text/html', name: `${fileNameOf(name)}.html` }, walkthroughPage(name, text));
  });
}

const asked = (params: { readonly id: string; readonly walkthroughId: string }, request: FastifyRequest) => ({
  classId: params.id,
  id: params.walkthroughId,
  origin: originOf(request),
});
