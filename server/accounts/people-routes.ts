import { randomInt } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { PEOPLE_AT_ONCE, type PersonId } from '@avrelle/core/wire';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import { hashPassword } from './passwords';
import { peoplePage, setSuspended } from './people-queries';
import { personById, setPassword } from './queries';
import { endSessions } from './session';
import { removeTokens } from './token-queries';

/** Without letters and digits that look alike. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
const GROUPS = 4;

/** Twenty letters in groups of five, to be read out and typed: 99 bits. */
const spokenPassword = (): string =>
  Array.from({ length: GROUPS }, () =>
    Array.from({ length: 5 }, () => LETTERS[randomInt(LETTERS.length)]).join(''),
  ).join('-');

/** All accounts, for administrators. */
export function peopleRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, streams } = context;
  const serve = serving(app, context);
  const other = (me: PersonId, id: string, action: string): string => {
    if (id === me) throw new AppError('own_account', { action });
    if (!personById(db, id)) throw new AppError('not_found', { what: 'account' });
    return id;
  };

  serve('GET /api/people', ({ query: { search, offset } }) => peoplePage(db, search, offset, PEOPLE_AT_ONCE));

  serve('PUT /api/people/:id/suspension', ({ me, params }) => {
    const id = other(me.id, params.id, 'suspend');
    setSuspended(db, id, now());
    endSessions(context, id);
    streams.endPerson(id);
  });

  serve(
    'DELETE /api/people/:id/suspension',
    ({ me, params }) => void setSuspended(db, other(me.id, params.id, 'open'), null),
  );

  serve('POST /api/people/:id/password', async ({ me, params }) => {
    const id = other(me.id, params.id, 'reset the password of');
    const password = spokenPassword();
    setPassword(db, id, await hashPassword(password));
    endSessions(context, id);
    removeTokens(db, id);
    return { password };
  });
}
