import type { FastifyInstance } from 'fastify';
import { parseLinkAddress } from '@avrelle/core/note';
import type { Context } from '../context';
import { readBlob, storeBlob } from '../db/blobs';
import { AppError } from '../errors';
import { recognise } from '../ingest/recognise';
import { serving } from '../serve';
import { sealedAsset } from '../snapshots/sealed';
import { tagCounts } from '../library/tag-queries';
import { linkedTo, maySeePicture, putPicture, readersOf } from './queries';

/** What every browser shows and no script can hide in. */
const SHOWN = /^image\/(png|jpeg|gif|webp|avif)$/;

/** What notes are made of beside words: pictures, people, and links in both directions. */
export function noteRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, room } = context;
  const serve = serving(app, context);
  app.addContentTypeParser(/^image\//, { parseAs: 'buffer' }, (_request, body, done) => done(null, body));

  serve('POST /api/pictures', async ({ me, request }) => {
    const bytes = request.body as Buffer;
    if (!Buffer.isBuffer(bytes)) throw new AppError('no_file');
    room.check(me.id, bytes.byteLength);
    const { mediaType } = await recognise({
      bytes,
      name: 'The picture',
      contentType: request.headers['content-type'] ?? '',
      address: null,
    });
    if (!SHOWN.test(mediaType)) throw new AppError('wrong_type', { address: 'The picture', type: mediaType });
    return db.transaction(() => {
      const hash = storeBlob(db, bytes, mediaType);
      putPicture(db, hash, me.id, now());
      return { hash };
    });
  });

  serve.file('GET /pictures/:hash', ({ me, params: { hash }, reply }) => {
    const blob = maySeePicture(db, me.id, hash) ? readBlob(db, hash) : undefined;
    if (!blob) throw new AppError('not_found', { what: 'picture' });
    return sealedAsset(reply, blob);
  });

  serve('GET /api/links', ({ me, query }) => {
    const link = parseLinkAddress(query.to);
    if (link?.type !== 'annotation' && link?.type !== 'source')
      throw new AppError('invalid', {
        message: 'Name what the links lead to, as avrelle:annotation/ID or avrelle:source/ID.',
      });
    return linkedTo(db, me.id, link);
  });

  serve('GET /api/sources/:id/readers', ({ me, params }) => readersOf(db, me.id, params.id));

  serve('GET /api/tags', ({ me }) => tagCounts(db, me.id).map((t) => t.tag));
}
