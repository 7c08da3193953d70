import type { FastifyInstance } from 'fastify';
import type { Desk } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { sourceRows } from '../sources/queries';
import { notices, seeAll } from './queries';

const MOST = 5;

export function deskRoutes(app: FastifyInstance, { db, now, events }: Context): void {
  app.get('/api/desk', (request): Desk => {
    const me = personOf(request).id, found = notices(db, me);
    return {
      notices: found, unseen: found.filter((n) => !n.seen).length,
      reading: sourceRows(db, me, { state: 'reading' }).slice(0, MOST),
      fresh: sourceRows(db, me, { state: 'to_read' }).slice(0, MOST),
    };
  });

  app.post('/api/desk/seen', (request, reply) => {
    const me = personOf(request).id;
    db.transaction(() => {
      if (seeAll(db, me, now()) > 0) events.append({ type: 'desk', personId: me });
    });
    return reply.code(204).send();
  });
}
