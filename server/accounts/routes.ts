import type { FastifyInstance } from 'fastify';
import { signInSchema, signUpSchema, type Me, type Welcome } from '@avrelle/core/wire';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parse } from '../parse';
import { hashPassword, verifyNobody, verifyPassword } from './passwords';
import { addStartingSearches } from '../library/starting-searches';
import { hasPeople, insertPerson, personByEmail } from './queries';
import { endSession, startSession } from './session';

const GUARD = { config: { rateLimit: { max: 12, timeWindow: '5 minutes' } } };

export function accountRoutes(app: FastifyInstance, context: Context): void {
  const { db, config } = context;

  app.get('/api/welcome', (request): Welcome => {
    const firstAccount = !hasPeople(db);
    return { me: request.person, signUp: config.signUp || firstAccount, firstAccount, event: context.events.cursor() };
  });

  app.post('/api/session', GUARD, async (request, reply): Promise<Me> => {
    const { email, password } = parse(signInSchema, request.body);
    const found = personByEmail(db, email);
    const right = found ? await verifyPassword(found.password_hash, password) : await verifyNobody(password);
    if (!found || !right) throw new AppError('wrong_password', {}, { field: 'password' });
    startSession(context, reply, found.id);
    return { id: found.id, name: found.name, email: found.email, role: found.role };
  });

  app.delete('/api/session', (request, reply) => {
    endSession(context, request, reply);
    return reply.code(204).send();
  });

  app.post('/api/people', GUARD, async (request, reply): Promise<Me> => {
    const { email, name, password } = parse(signUpSchema, request.body);
    if (!config.signUp && hasPeople(db)) throw new AppError('sign_up_closed');
    const passwordHash = await hashPassword(password);
    const me: Me = db.transaction(() => {
      if (personByEmail(db, email)) throw new AppError('email_taken', { email }, { field: 'email' });
      const person: Me = { id: context.newId(), email, name, role: hasPeople(db) ? 'member' : 'administrator' };
      insertPerson(db, person, passwordHash, context.now());
      addStartingSearches(db, person.id, context.newId);
      return person;
    });
    startSession(context, reply, me.id);
    return me;
  });
}
