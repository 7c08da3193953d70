import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { readBlob, readBlobRange, sizeOfBlob } from '../db/blobs';
import { AppError } from '../errors';
import { readId } from '../read-id';
import { canRead, versionOf } from '../sources/queries';
import { fileOf, hasAsset, leadOf } from './queries';
import { readRange } from './read-range';
import { sealed, sealedAsset } from './sealed';

/** Captured pages and the files they were made of. */
export function snapshotRoutes(app: FastifyInstance, { db }: Context): void {
  const version = (request: FastifyRequest) => {
    const found = versionOf(db, readId(request));
    if (!found || !canRead(db, personOf(request).id, found.source_id))
      throw new AppError('not_found', { what: 'version' });
    return found;
  };

  app.get('/snapshots/:id/', (request, reply) =>
    sealed(request, reply, readBlob(db, version(request).snapshot_hash)!.bytes),
  );

  app.get('/snapshots/:id/asset/:hash', (request, reply) => {
    version(request);
    const { hash } = request.params as { hash: string };
    const blob = hasAsset(db, readId(request), hash) ? readBlob(db, hash) : undefined;
    if (!blob) throw new AppError('not_found', { what: 'picture' });
    return sealedAsset(reply, blob);
  });

  /** The file a version was made of: whole, or the range asked for (RFC 9110, 14), read from the database without the rest. */
  app.get('/files/:id', (request, reply) => {
    version(request);
    const file = fileOf(db, readId(request));
    if (!file) throw new AppError('not_found', { what: 'file' });
    return sendRange(request, reply, file.hash, file.media_type);
  });

  app.get('/api/sources/:id/lead', (request, reply) => {
    const id = readId(request);
    const hash = canRead(db, personOf(request).id, id) ? leadOf(db, id) : undefined;
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
