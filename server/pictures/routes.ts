import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { AppError } from '../errors';
import { recognise } from '../ingest/recognise';
import { serving } from '../serve';
import { sourceDetail } from '../sources/queries';
import { replacePicture } from './replace-picture';

export function pictureRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;

  serving(app, context)('PUT /api/sources/:id/picture', async ({ me, params: { id }, query, request }) => {
    const source = sourceDetail(db, me.id, id)!;
    if (source.kind !== 'image') throw new AppError('not_a_picture', { title: source.title });
    const { from, ...crop } = query;
    const bytes = request.body as Buffer;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0) throw new AppError('no_file');
    const { mediaType } = await recognise({
      bytes,
      name: 'The picture',
      contentType: request.headers['content-type'] ?? '',
      address: null,
    });
    if (mediaType !== 'image/png') throw new AppError('wrong_type', { address: 'The picture', type: mediaType });
    replacePicture(context, id, { from, bytes, crop });
    return sourceDetail(db, me.id, id)!;
  });
}
