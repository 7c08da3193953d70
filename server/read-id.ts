import type { FastifyRequest } from 'fastify';
import { UUID_V7 } from '@avrelle/core/wire';
import { AppError } from './errors';

const paramOf = (request: FastifyRequest, name: string): string =>
  (request.params as Readonly<Record<string, string>>)[name] ?? '';

/** An id from the path. Throws `invalid` unless it is a version 7 UUID. */
export function readId(request: FastifyRequest, name = 'id'): string {
  const value = paramOf(request, name);
  if (!UUID_V7.test(value))
    throw new AppError(
      'invalid',
      {
        message: `“${value}” is not the id of anything. Check whether the link was copied whole (ids are version 7 UUIDs in lower case, RFC 9562).`,
      },
      { field: name },
    );
  return value;
}

/** The content a path names, by its SHA-256 in hex. Throws `not_found` where that can name nothing. */
export function readHash(request: FastifyRequest): string {
  const value = paramOf(request, 'hash');
  if (!/^[0-9a-f]{64}$/.test(value)) throw new AppError('not_found', { what: 'picture' });
  return value;
}
