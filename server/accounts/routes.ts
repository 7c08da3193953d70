import type { FastifyInstance } from 'fastify';
import type { Me } from '@avrelle/core/wire';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import { isCommon } from './common-passwords';
import { hashPassword, verifyNobody, verifyPassword } from './passwords';
import { addStartingSearches } from '../library/starting-searches';
import { hasPeople, insertPerson, personByEmail } from './queries';
import { ownAccountRoutes } from './own-routes';
import { peopleRoutes } from './people-routes';
import { endSession, startSession } from './session';
import { Tries } from './tries';

export function accountRoutes(app: FastifyInstance, context: Context): void {
  const { db, config } = context;
  const tries = new Tries();
  const serve = serving(app, context);

  serve('GET /api/welcome', ({ request }) => {
    const firstAccount = !hasPeople(db);
    return {
      me: request.person,
      signUp: config.signUp || firstAccount,
      firstAccount,
      event: context.events.cursor(),
      samples: request.person ? [] : context.samples,
    };
  });

  serve('POST /api/session', async ({ body: { email, password }, request, reply }) => {
    const person = await tries.guard(email, request.ip, ['wrong_password'], async () => {
      const found = personByEmail(db, email);
      const right = found ? await verifyPassword(found.passwordHash, password) : await verifyNobody(password);
      if (!found || !right) throw new AppError('wrong_password', {}, { field: 'password' });
      if (found.suspendedAt !== null) throw new AppError('suspended');
      return found;
    });
    startSession(context, request, reply, person.id);
    return { id: person.id, name: person.name, email: person.email, role: person.role };
  });

  serve('DELETE /api/session', ({ request, reply }) => endSession(context, request, reply));

  serve('POST /api/people', async ({ body: { email, name, password }, request, reply }) => {
    await tries.signUp(request.ip);
    if (!config.signUp && hasPeople(db)) throw new AppError('sign_up_closed');
    if (await isCommon(password)) throw new AppError('common_password', {}, { field: 'password' });
    const passwordHash = await hashPassword(password);
    const me: Me = db.transaction(() => {
      if (personByEmail(db, email)) throw new AppError('email_taken', { email }, { field: 'email' });
      const person: Me = { id: context.newId(), email, name, role: hasPeople(db) ? 'member' : 'administrator' };
      insertPerson(db, person, passwordHash, context.now());
      addStartingSearches(db, person.id, context.newId);
      return person;
    });
    startSession(context, request, reply, me.id);
    return me;
  });

  ownAccountRoutes(app, context, tries);
  peopleRoutes(app, context);
}
