import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { AppError } from '../errors';
import { checkListLimit } from '../list-limit-queries';
import { serving } from '../serve';
import { isCommon } from './common-passwords';
import { hashPassword, verifyPassword } from './passwords';
import { personById, sessionsOf, setName, setPassword } from './queries';
import { daysFrom, endSessions, newToken, sessionOf, TOKEN_PREFIX, tokenHash } from './session';
import { insertToken, removeToken, tokensOf } from './token-queries';
import type { Tries } from './tries';

/** One's own account: name and password, where one is signed in, and what other programs may do. */
export function ownAccountRoutes(app: FastifyInstance, context: Context, tries: Tries): void {
  const { db, now, events } = context;
  const serve = serving(app, context);

  serve('PATCH /api/account', ({ me, body }) => {
    db.transaction(() => {
      setName(db, me.id, body.name);
      events.append({ type: 'library', personId: me.id });
    });
    return { ...me, name: body.name };
  });

  serve('PUT /api/account/password', async ({ me, body, request }) => {
    await tries.guard(me.email, request.ip, ['wrong_password'], async () => {
      if (!(await verifyPassword(personById(db, me.id)!.passwordHash, body.current)))
        throw new AppError('wrong_password', {}, { field: 'current' });
    });
    if (await isCommon(body.password)) throw new AppError('common_password', {}, { field: 'password' });
    setPassword(db, me.id, await hashPassword(body.password));
    const here = sessionOf(request);
    endSessions(context, me.id, ({ hash }) => hash !== here);
  });

  serve('GET /api/account/sessions', ({ me, request }) => {
    const here = sessionOf(request);
    return sessionsOf(db, me.id, now()).map(({ id, agent, createdAt, seenAt, tokenHash: hash }) => ({
      id,
      agent,
      createdAt,
      seenAt,
      here: hash === here,
    }));
  });

  serve('DELETE /api/account/sessions/:id', ({ me, params }) => {
    if (endSessions(context, me.id, ({ id }) => id === params.id) === 0)
      throw new AppError('not_found', { what: 'session' });
  });

  serve('DELETE /api/account/sessions', ({ me, request }) => {
    const here = sessionOf(request);
    endSessions(context, me.id, ({ hash }) => hash !== here);
  });

  serve('GET /api/account/tokens', ({ me }) => tokensOf(db, me.id));

  serve('PUT /api/account/tokens/:id', ({ me, params, body: { name, scope, days } }) => {
    const token = `${TOKEN_PREFIX}${newToken()}`;
    const at = { now: now(), expiresAt: daysFrom(now(), days) };
    return db.transaction(() => {
      if (!insertToken(db, { id: params.id, personId: me.id, name, scope, hash: tokenHash(token), ...at }))
        throw new AppError('id_taken', { id: params.id });
      checkListLimit(db, 'tokens', me.id);
      return { token };
    });
  });

  serve('DELETE /api/account/tokens/:id', ({ me, params }) => {
    if (!removeToken(db, me.id, params.id)) throw new AppError('not_found', { what: 'access key' });
  });
}
