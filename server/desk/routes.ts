import type { FastifyInstance } from 'fastify';
import type { Desk, SourceRow } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { readQuery, sourcePage } from '../find/find';
import { askerOf } from '../find/routes';
import { notices, seeAll } from './queries';

const MOST = 5;

export function deskRoutes(app: FastifyInstance, { db, now, events }: Context): void {
  app.get('/api/desk', (request): Desk => {
    const me = personOf(request).id, found = notices(db, me), asker = askerOf({ db, now }, request);
    const some = (query: string): readonly SourceRow[] => sourcePage(db, readQuery(query), asker, { sort: 'touched', offset: 0, limit: MOST }, false).sources;
    return {
      notices: found, unseen: found.filter((n) => !n.seen).length,
      reading: some('is:reading'), fresh: some('is:to-read'),
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
