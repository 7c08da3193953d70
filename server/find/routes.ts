import type { FastifyInstance } from 'fastify';
import type { FindResult } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { find } from './find';

const LONGEST_QUERY = 400;

export function findRoutes(app: FastifyInstance, { db }: Context): void {
  app.get('/api/find', (request): FindResult => {
    const me = personOf(request), query = (request.query as { q?: string }).q ?? '';
    if (query.length > LONGEST_QUERY) throw new AppError('invalid', { message: `A search may have ${LONGEST_QUERY} characters, this one has ${query.length}. Look for fewer words.` }, { field: 'q' });
    return find(db, me.id, query);
  });
}
