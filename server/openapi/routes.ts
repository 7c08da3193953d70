import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serving } from '../serve';
import { openApiDocument } from './document';

/** What there is to ask, for those who write programs. */
export function openApiRoutes(app: FastifyInstance, context: Context): void {
  let made: string | undefined;
  serving(app, context).file('GET /api/openapi.json', ({ reply }) => {
    made ??= JSON.stringify(openApiDocument());
    return reply.type('application/json; charset=utf-8').header('cache-control', 'public, max-age=3600').send(made);
  });
}
