import type { FastifyInstance } from 'fastify';
import type { Spans } from '@avrelle/core/reading';
import { mainText, type Outline } from '@avrelle/core/text';
import type { SourceDetail, PersonId } from '@avrelle/core/wire';
import type { Context } from '../context';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { serving } from '../serve';
import { versionIdOf } from '../versions/version-id';
import { readingEase } from './ease';
import { patchSource, replaceTags, setDeleted, shelve, sourceDetail, versionText } from './queries';

/** One source: what it is, its words, and what a person has to do with it. */
export function sourceRoutes(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;
  const serve = serving(app, context);

  serve('GET /api/sources/:id', ({ me, params, query }) => detail(db, me.id, params.id, query.version));

  serve('GET /api/sources/:id/text', ({ me, params, query }) => {
    const { versionId } = detail(db, me.id, params.id, query.version);
    const { stream, outline } = versionText(db, versionId)!;
    return { versionId, text: stream, outline: JSON.parse(outline) as Outline };
  });

  serve('GET /api/sources/:id/ease', ({ me, params, query }) => {
    const { versionId, language } = detail(db, me.id, params.id, query.version);
    const { stream, outline } = versionText(db, versionId)!;
    return readingEase(mainText(stream, JSON.parse(outline) as Outline), language) ?? null;
  });

  serve('PATCH /api/sources/:id', ({ me, params: { id }, body }) => {
    const before = detail(db, me.id, id);
    const { version, ...to } = { ...before, ...body };
    return db.transaction(() => {
      if (!patchSource(db, id, version, { ...to, publishedAt: to.publishedAt || null }))
        throw new AppError('stale', { yours: body.version, current: before.version }, { current: before });
      events.append({ type: 'library', personId: me.id, sourceId: id });
      return detail(db, me.id, id);
    });
  });

  serve('PUT /api/sources/:id/tags', ({ me, params: { id }, body: { tags } }) =>
    db.transaction(() => {
      replaceTags(db, { personId: me.id, sourceId: id }, tags, now());
      events.append({ type: 'library', personId: me.id, sourceId: id });
      return detail(db, me.id, id);
    }),
  );

  serve('PUT /api/sources/:id/shelf', ({ me, params: { id }, body: { versionId, state, position, spans, heard } }) => {
    const counts = versionId === undefined || versionId === detail(db, me.id, id).versionId;
    const read = counts ? { position, spans: spans as Spans | undefined, heard: heard as Spans | undefined } : {};
    db.transaction(() => {
      shelve(db, { personId: me.id, sourceId: id }, { state, ...read }, now());
      if (state) events.append({ type: 'library', personId: me.id, sourceId: id });
    });
  });

  const setGone = (me: PersonId, id: string, at: string | null): void =>
    db.transaction(() => {
      setDeleted(db, id, at);
      events.append({ type: 'library', personId: me, sourceId: id });
    });
  serve('DELETE /api/sources/:id', ({ me, params }) => setGone(me.id, params.id, now()));
  serve('POST /api/sources/:id/restore', ({ me, params }) => setGone(me.id, params.id, null));
}

/** A source that the asker may read, in one of its versions. */
const detail = (db: Db, me: PersonId, id: string, version?: string): SourceDetail =>
  sourceDetail(db, me, id, versionIdOf(db, id, version))!;
