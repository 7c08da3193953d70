import type { FastifyInstance, FastifyRequest } from 'fastify';
import type { Spans } from '@avrelle/core/reading';
import { mainText, type Outline } from '@avrelle/core/text';
import { shelfSchema, sourcePatchSchema, sourceTagsSchema, type Ease, type ReadingState, type SourceDetail, type SourceText } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parse } from '../parse';
import { readId } from '../read-id';
import { versionIdIn } from '../versions/version-in';
import { readingEase } from './ease';
import { canRead, ownerOf, patchSource, replaceTags, setDeleted, shelve, sourceDetail, versionText, wasOwned } from './queries';

export function sourceRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;

  app.get('/api/sources/:id', (request): SourceDetail => detail(context, request));

  app.get('/api/sources/:id/text', (request): SourceText => {
    const source = detail(context, request);
    const text = versionText(db, source.versionId)!;
    return { versionId: source.versionId, text: text.stream, outline: JSON.parse(text.outline) as SourceText['outline'] };
  });

  app.get('/api/sources/:id/ease', (request): Ease | null => {
    const { versionId, language } = detail(context, request); const { stream, outline } = versionText(db, versionId)!;
    return readingEase(mainText(stream, JSON.parse(outline) as Outline), language) ?? null;
  });

  app.patch('/api/sources/:id', (request): SourceDetail => {
    const me = personOf(request); const id = readId(request); const patch = parse(sourcePatchSchema, request.body);
    const before = detail(context, request);
    mustOwn(context, me.id, id);
    const { version, ...to } = { ...before, ...patch };
    db.transaction(() => {
      if (!patchSource(db, id, version, { ...to, publishedAt: to.publishedAt || null })) throw new AppError('stale', { yours: patch.version, current: before.version }, { current: before });
      events.append({ type: 'library', personId: me.id, sourceId: id });
    });
    return sourceDetail(db, me.id, id)!;
  });

  app.put('/api/sources/:id/tags', (request): SourceDetail => {
    const me = personOf(request); const source = detail(context, request); const { tags } = parse(sourceTagsSchema, request.body);
    db.transaction(() => {
      replaceTags(db, me.id, source.id, tags, context.now());
      events.append({ type: 'library', personId: me.id, sourceId: source.id });
    });
    return sourceDetail(db, me.id, source.id)!;
  });

  app.put('/api/sources/:id/shelf', (request, reply) => {
    const me = personOf(request); const source = detail(context, request); const to = parse(shelfSchema, request.body);
    db.transaction(() => {
      const counts = to.versionId === undefined || to.versionId === source.versionId;
      shelve(db, me.id, source.id, { state: to.state as ReadingState | undefined, ...(counts ? { position: to.position, spans: to.spans as Spans | undefined } : {}) }, context.now());
      if (to.state) events.append({ type: 'library', personId: me.id, sourceId: source.id });
    });
    return reply.code(204).send();
  });

  for (const [method, restores] of [['DELETE', false], ['POST', true]] as const) {
    app.route({
      method, url: restores ? '/api/sources/:id/restore' : '/api/sources/:id',
      handler: (request, reply) => {
        const me = personOf(request); const id = readId(request);
        if (restores ? !wasOwned(db, me.id, id) : !canRead(db, me.id, id)) throw new AppError('not_found', { what: 'source' });
        if (!restores) mustOwn(context, me.id, id);
        db.transaction(() => {
          setDeleted(db, id, restores ? null : context.now());
          events.append({ type: 'library', personId: me.id, sourceId: id });
        });
        return reply.code(204).send();
      },
    });
  }
}

function detail({ db }: Context, request: FastifyRequest): SourceDetail {
  const me = personOf(request).id; const id = readId(request);
  const found = canRead(db, me, id) ? sourceDetail(db, me, id, versionIdIn({ db }, request, id)) : undefined;
  if (!found) throw new AppError('not_found', { what: 'source' });
  return found;
}

export function mustOwn({ db }: Context, personId: string, sourceId: string): void {
  const owner = ownerOf(db, sourceId);
  if (owner?.id !== personId) throw new AppError('not_yours', { what: 'source', owner: owner?.name ?? 'somebody else' });
}
