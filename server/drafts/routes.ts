import type { FastifyInstance } from 'fastify';
import { keepDraftSchema, type Draft, type Job } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { readBlob } from '../db/blobs';
import { AppError } from '../errors';
import { startJob } from '../jobs/start-job';
import { parse } from '../parse';
import { readId } from '../read-id';
import { sealed, sealedAsset } from '../snapshots/sealed';
import { describeBefore, keptBefore } from '../sources/queries';
import { draftContent, draftHasAsset, draftSnapshot, removeDraft } from './queries';

/** Pages fetched to be looked at before they are kept. Only who fetched one sees it. */
export function draftRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;

  app.get('/api/drafts/:id', (request): Draft => {
    const me = personOf(request).id;
    const id = readId(request);
    const { meta, kind, address, canonical, fingerprint, facts, minutes } = draftContent(db, me, id);
    const before = keptBefore(db, me, { canonical, fingerprint });
    const { title, author, site, description, language, publishedAt, doi } = meta;
    return {
      id,
      meta: { title, author, site, description, language, publishedAt, doi },
      kind,
      address,
      facts,
      minutes,
      before: before === undefined ? null : describeBefore(db, before),
    };
  });

  app.post('/api/drafts/:id/keep', (request): Job => {
    const me = personOf(request).id;
    const draftId = readId(request);
    const given = parse(keepDraftSchema, request.body);
    const { address } = draftContent(db, me, draftId);
    const { id, amount, width, removed, passage, title, author, tags, remark, apart } = given;
    if (amount === 'passage' && !passage)
      throw new AppError('invalid', { message: 'Select the passage that is to be kept.' }, { field: 'passage' });
    return startJob(context, {
      id,
      personId: me,
      label: address ?? title,
      input: {
        sourceId: context.newId(),
        tags,
        remark,
        ...(address ? { address } : {}),
        draft: { id: draftId, title, author },
        choices: { amount, width, removed, passage },
        ...(apart ? { apart: true as const } : {}),
      },
    });
  });

  app.delete('/api/drafts/:id', (request, reply) => {
    removeDraft(db, personOf(request).id, readId(request));
    return reply.code(204).send();
  });

  app.get('/drafts/:id/', (request, reply) =>
    sealed(request, reply, draftSnapshot(db, personOf(request).id, readId(request))),
  );

  app.get('/drafts/:id/asset/:hash', (request, reply) => {
    const id = readId(request);
    const { hash } = request.params as { hash: string };
    draftContent(db, personOf(request).id, id);
    const blob = draftHasAsset(db, id, hash) ? readBlob(db, hash) : undefined;
    if (!blob) throw new AppError('not_found', { what: 'picture' });
    return sealedAsset(reply, blob);
  });
}
