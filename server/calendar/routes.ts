import { randomBytes } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { assignmentsOf } from '../assignments/assignments';
import type { Context } from '../context';
import { AppError } from '../errors';
import { originOf } from '../export/routes';
import { serving } from '../serve';
import { calendarOf } from './calendar';
import { calendarToken, endCalendar, ownerOfCalendar, setCalendarToken } from './queries';

const TOKEN_BYTES = 32;
const pathOf = (token: string | null): string | null => token && `/calendar/${token}`;

/** What is due, for calendar programs: they have no session, and are known by an address that nobody guesses. */
export function calendarRoutes(app: FastifyInstance, context: Context): void {
  const { db, now } = context;
  const serve = serving(app, context);

  serve('GET /api/calendar', ({ me }) => ({ path: pathOf(calendarToken(db, me.id)) }));
  serve('POST /api/calendar', ({ me }) =>
    db.transaction(() => {
      const token = randomBytes(TOKEN_BYTES).toString('hex');
      setCalendarToken(db, me.id, token, now());
      return { path: pathOf(token) };
    }),
  );
  serve('DELETE /api/calendar', ({ me }) => {
    endCalendar(db, me.id);
  });
  serve.file('GET /calendar/:hash', ({ params: { hash }, request, reply }) => {
    const owner = ownerOfCalendar(db, hash);
    if (!owner) throw new AppError('not_found', { what: 'calendar' });
    void reply.type('text/calendar; charset=utf-8').header('cache-control', 'private, no-store');
    return calendarOf(assignmentsOf(db, owner.id, {}), originOf(request));
  });
}
