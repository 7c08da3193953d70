import type { FastifyRequest } from 'fastify';
import type { Context } from '../context';
import { AppError } from '../errors';
import { versionNumbered } from './queries';

/** The version of a source that `?version=NUMBER` asks for; null for the newest. Throws `not_found` where there is none. */
export function versionIdIn(
  { db }: Pick<Context, 'db'>,
  request: FastifyRequest,
  sourceId: string,
  name = 'version',
): string | null {
  const asked = (request.query as Record<string, string | undefined>)[name];
  if (asked === undefined) return null;
  const found = /^\d{1,6}$/.test(asked) ? versionNumbered(db, sourceId, Number(asked)) : undefined;
  if (!found) throw new AppError('not_found', { what: 'version' });
  return found;
}
