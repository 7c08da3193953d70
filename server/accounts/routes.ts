import type { FastifyInstance } from 'fastify';
import { signInSchema, signUpSchema, type Me, type Welcome } from '@avrelle/core/wire';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parse } from '../parse';
import { isCommon } from './common-passwords';
import { hashPassword, verifyNobody, verifyPassword } from './passwords';
import { addStartingSearches } from '../library/starting-searches';
import { hasPeople, insertPerson, personByEmail } from './queries';
import { ownAccountRoutes } from './own-routes';
import { peopleRoutes } from './people-routes';
import { endSession, startSession } from './session';
import { Tries } from './tries';

/** Anybody may ask, so little is read of what they send. */
const OPEN = { config: { open: true }, bodyLimit: 16 * 1024 };

export function accountRoutes(app: FastifyInstance, context: Context): void {
  const { db, config } = context;
  const tries = new Tries();

  app.get('/api/welcome', (request): Welcome => {
    const firstAccount = !hasPeople(db);
    return { me: request.person, signUp: config.signUp || firstAccount, firstAccount, event: context.events.cursor() };
  });

  app.post('/api/session', OPEN, async (request, reply): Promise<Me> => {
    const { email, password } = parse(signInSchema, request.body);
    const person = await tries.guard(email, request.ip, ['wrong_password'], async () => {
      const found = personByEmail(db, email);
      const right = found ? await verifyPassword(found.password_hash, password) : await verifyNobody(password);
      if (!found || !right) throw new AppError('wrong_password', {}, { field: 'password' });
      if (found.suspended_at !== null) throw new AppError('suspended');
      return found;
    });
    startSession(context, request, reply, person.id);
    return { id: person.id, name: person.name, email: person.email, role: person.role };
  });

  app.delete('/api/session', OPEN, (request, reply) => {
    endSession(context, request, reply);
    return reply.code(204).send();
  });

  app.post('/api/people', OPEN, async (request, reply): Promise<Me> => {
    await tries.signUp(request.ip);
    const { email, name, password } = parse(signUpSchema, request.body);
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
