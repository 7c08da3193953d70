import type { FastifyRequest } from 'fastify';
import { UUID_V7 } from '@avrelle/core/wire';
import { AppError } from './errors';

/** An id from the path. Throws `invalid` unless it is a version 7 UUID. */
export function readId(request: FastifyRequest, name = 'id'): string {
  const value = (request.params as Record<string, string>)[name] ?? '';
  if (!UUID_V7.test(value))
    throw new AppError(
      'invalid',
      { message: `"${value}" is not an id: a version 7 UUID in lower case was expected (RFC 9562).` },
      { field: name },
    );
  return value;
}
