import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { Context } from '../context';
import { readBlob, readBlobRange, sizeOfBlob } from '../db/blobs';
import { AppError } from '../errors';
import { serving } from '../serve';
import { versionOf } from '../sources/queries';
import { fileOf, hasAsset, leadOf } from './queries';
import { readRange } from './read-range';
import { sealed, sealedAsset } from './sealed';

/** Captured pages and the files they were made of. */
export function snapshotRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const serve = serving(app, context);

  serve.file('GET /snapshots/:id/', ({ params, request, reply }) =>
    sealed(request, reply, readBlob(db, versionOf(db, params.id)!.snapshotHash)!.bytes),
  );

  serve.file('GET /snapshots/:id/asset/:hash', ({ params: { id, hash }, reply }) => {
    const blob = hasAsset(db, id, hash) ? readBlob(db, hash) : undefined;
    if (!blob) throw new AppError('not_found', { what: 'picture' });
    return sealedAsset(reply, blob);
  });

  /** A range is read from the database without the rest. */
  serve.file('GET /files/:id', ({ params, request, reply }) => {
    const file = fileOf(db, params.id);
    if (!file) throw new AppError('not_found', { what: 'file' });
    return sendRange(request, reply, file.hash, file.mediaType);
  });

  serve.file('GET /api/sources/:id/lead', ({ params, reply }) => {
    const hash = leadOf(db, params.id);
    if (!hash) throw new AppError('not_found', { what: 'picture' });
    return sealedAsset(reply, readBlob(db, hash)!);
  });

  function sendRange(request: FastifyRequest, reply: FastifyReply, hash: string, mediaType: string): FastifyReply {
    const size = sizeOfBlob(db, hash)!;
    const wanted = readRange(request.headers.range, size);
    // Shown by our own pages alone; opened by itself it can do nothing.
    void reply.headers({
      'accept-ranges': 'bytes',
      'content-type': mediaType,
      'cache-control': 'private, max-age=31536000, immutable',
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
      'x-content-type-options': 'nosniff',
      'cross-origin-resource-policy': 'same-origin',
    });
    if (wanted === 'none') throw new AppError('bad_range', { range: request.headers.range ?? '', size });
    if (wanted === 'whole') return reply.send(readBlob(db, hash)!.bytes);
    return reply
      .code(206)
      .header('content-range', `bytes ${wanted.start}-${wanted.end - 1}/${size}`)
      .send(readBlobRange(db, hash, wanted.start, wanted.end));
  }
}
