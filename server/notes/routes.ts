import type { FastifyInstance } from 'fastify';
import { parseLinkAddress } from '@avrelle/core/note';
import type { Linked, Person, StoredPicture } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { readBlob, storeBlob } from '../db/blobs';
import { AppError } from '../errors';
import { recognise } from '../ingest/recognise';
import { readId } from '../read-id';
import { sealedAsset } from '../snapshots/sealed';
import { canRead } from '../sources/queries';
import { tagCounts } from '../library/tag-queries';
import { linkedTo, maySeePicture, putPicture, readersOf } from './queries';

const PICTURE_LIMIT = 10 * 1024 * 1024;
/** What every browser shows and no script can hide in. */
const SHOWN = /^image\/(png|jpeg|gif|webp|avif)$/;

/** What notes are made of beside words: pictures, people, and links in both directions. */
export function noteRoutes(app: FastifyInstance, { db, now, room }: Context): void {
  app.addContentTypeParser(/^image\//, { parseAs: 'buffer' }, (_request, body, done) => done(null, body));

  app.post('/api/pictures', { bodyLimit: PICTURE_LIMIT }, async (request): Promise<StoredPicture> => {
    const me = personOf(request);
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

  app.get('/pictures/:hash', (request, reply) => {
    const me = personOf(request);
    const { hash } = request.params as { hash: string };
    const blob = maySeePicture(db, me.id, hash) ? readBlob(db, hash) : undefined;
    if (!blob) throw new AppError('not_found', { what: 'picture' });
    return sealedAsset(reply, blob);
  });

  /** `?to=avrelle:annotation/ID`, or a source: whatever of mine or my classes leads there. */
  app.get('/api/links', (request): Linked[] => {
    const me = personOf(request);
    const link = parseLinkAddress((request.query as { to?: string }).to ?? '');
    if (link?.type !== 'annotation' && link?.type !== 'source')
      throw new AppError('invalid', {
        message: 'Name what the links lead to, as avrelle:annotation/ID or avrelle:source/ID.',
      });
    return linkedTo(db, me.id, link);
  });

  app.get('/api/sources/:id/readers', (request): Person[] => {
    const me = personOf(request);
    const id = readId(request);
    if (!canRead(db, me.id, id)) throw new AppError('not_found', { what: 'source' });
    return readersOf(db, me.id, id);
  });

  app.get('/api/tags', (request): string[] => tagCounts(db, personOf(request).id).map((t) => t.tag));
}
