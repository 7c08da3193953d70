import type { FastifyInstance } from 'fastify';
import { pictureEditSchema, type SourceDetail } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { recognise } from '../ingest/recognise';
import { parseQuery } from '../parse';
import { readId } from '../read-id';
import { mustOwn } from '../sources/routes';
import { sourceDetail } from '../sources/queries';
import { replacePicture } from './replace-picture';

const PICTURE_LIMIT = 40 * 1024 * 1024;

export function pictureRoutes(app: FastifyInstance, context: Context): void {
  /**
   * A PNG picture in the place of the one a source holds: `?from=` the content it was made of, and `x`, `y`, `width`,
   * `height` the part of it that is left, in shares. Nothing of the former picture is kept.
   */
  app.put('/api/sources/:id/picture', { bodyLimit: PICTURE_LIMIT }, async (request): Promise<SourceDetail> => {
    const me = personOf(request);
    const id = readId(request);
    const source = sourceDetail(context.db, me.id, id);
    if (!source) throw new AppError('not_found', { what: 'source' });
    mustOwn(context, me.id, id);
    if (source.kind !== 'image') throw new AppError('not_a_picture', { title: source.title });
    const { from, ...crop } = parseQuery(pictureEditSchema, request.query);
    const bytes = request.body as Buffer;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0) throw new AppError('no_file');
    const { mediaType } = await recognise({
      bytes,
      name: 'The picture',
      contentType: request.headers['content-type'] ?? '',
      address: null,
    });
    if (mediaType !== 'image/png') throw new AppError('wrong_type', { address: 'The picture', type: mediaType });
    replacePicture(context, id, from, bytes, crop);
    return sourceDetail(context.db, me.id, id)!;
  });
}
