import type { FastifyInstance, FastifyRequest } from 'fastify';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { readBlob } from '../db/blobs';
import { AppError } from '../errors';
import { readId } from '../read-id';
import { canRead, versionOf } from '../sources/queries';
import { hasAsset } from './queries';

/**
 * Captured pages, under a policy of their own: no script, no form, no request but for the version's own pictures and
 * fonts. `sandbox` holds when the address is opened by itself, too.
 */
export function snapshotRoutes(app: FastifyInstance, { db }: Context): void {
  const version = (request: FastifyRequest) => {
    const found = versionOf(db, readId(request));
    if (!found || !canRead(db, personOf(request).id, found.source_id)) throw new AppError('not_found', { what: 'version' });
    return found;
  };

  app.get('/snapshots/:id/', (request, reply) => {
    const { bytes } = readBlob(db, version(request).snapshot_hash)!;
    return reply.type('text/html; charset=utf-8').headers({ ...SEALED, 'content-security-policy': snapshotPolicy(request), 'cache-control': 'private, max-age=31536000, immutable' }).send(bytes);
  });

  app.get('/snapshots/:id/asset/:hash', (request, reply) => {
    version(request);
    const hash = (request.params as { hash: string }).hash;
    const blob = hasAsset(db, readId(request), hash) ? readBlob(db, hash) : undefined;
    if (!blob) throw new AppError('not_found', { what: 'picture' });
    return reply.type(blob.mediaType).headers({ ...SEALED, 'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox", 'cache-control': 'private, max-age=31536000, immutable' }).send(blob.bytes);
  });
}

const SEALED = { 'x-content-type-options': 'nosniff', 'referrer-policy': 'no-referrer', 'cross-origin-resource-policy': 'same-origin', 'x-frame-options': 'SAMEORIGIN' } as const;

function snapshotPolicy(request: FastifyRequest): string {
  const own = `${request.protocol}://${request.host}/snapshots/`;
  return ["default-src 'none'", `img-src ${own} data:`, `font-src ${own} data:`, "style-src 'unsafe-inline'", "form-action 'none'", "base-uri 'none'", "frame-ancestors 'self'", "script-src 'none'", 'sandbox allow-same-origin'].join('; ');
}
