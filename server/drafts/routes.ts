import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { readBlob } from '../db/blobs';
import { AppError } from '../errors';
import { startJob } from '../jobs/start-job';
import { serving } from '../serve';
import { sealed, sealedAsset } from '../snapshots/sealed';
import { describeBefore, keptBefore } from '../sources/queries';
import { draftContent, draftHasAsset, draftSnapshot, removeDraft } from './queries';

/** Pages fetched to be looked at before they are kept. Only who fetched one sees it. */
export function draftRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const serve = serving(app, context);

  serve('GET /api/drafts/:id', ({ me, params: { id } }) => {
    const { meta, kind, address, canonical, fingerprint, facts, minutes } = draftContent(db, me.id, id);
    const before = keptBefore(db, me.id, { canonical, fingerprint });
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

  serve('POST /api/drafts/:id/keep', ({ me, params, body }) => {
    const { address } = draftContent(db, me.id, params.id);
    const { id, amount, width, removed, passage, title, author, tags, remark, apart } = body;
    if (amount === 'passage' && !passage)
      throw new AppError('invalid', { message: 'Select the passage that is to be kept.' }, { field: 'passage' });
    return startJob(context, {
      id,
      personId: me.id,
      label: address ?? title,
      input: {
        origin: { type: 'draft', draftId: params.id, choices: { amount, width, removed, passage } },
        target: { type: 'source', sourceId: context.newId(), tags, remark, ...(apart ? { apart: true as const } : {}) },
        overrides: { title, author },
      },
    });
  });

  serve('DELETE /api/drafts/:id', ({ me, params }) => removeDraft(db, me.id, params.id));

  serve.file('GET /drafts/:id/', ({ me, params, request, reply }) =>
    sealed(request, reply, draftSnapshot(db, me.id, params.id)),
  );

  serve.file('GET /drafts/:id/asset/:hash', ({ params: { id, hash }, reply }) => {
    const blob = draftHasAsset(db, id, hash) ? readBlob(db, hash) : undefined;
    if (!blob) throw new AppError('not_found', { what: 'picture' });
    return sealedAsset(reply, blob);
  });
}
