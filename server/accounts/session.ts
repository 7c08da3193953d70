import { createHash, randomBytes } from 'node:crypto';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Me } from '@avrelle/core/wire';
import type { Context } from '../context';
import { AppError } from '../errors';
import { deleteSession, insertSession, personBySession } from './queries';

export const COOKIE = 'avrelle_session';
const DAYS = 30;

declare module 'fastify' {
  interface FastifyRequest {
    person: Me | null;
  }
}

/** Tokens are stored hashed: a stolen database signs nobody in. */
const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex');

export function startSession(context: Context, reply: FastifyReply, personId: string): void {
  const token = randomBytes(32).toString('base64url');
  const now = context.now();
  const expires = new Date(Date.parse(now) + DAYS * 86_400_000);
  insertSession(context.db, tokenHash(token), personId, now, expires.toISOString());
  reply.setCookie(COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: context.config.secureCookies,
    expires,
  });
}

export function endSession(context: Context, request: FastifyRequest, reply: FastifyReply): void {
  const session = sessionOf(request);
  deleteSession(context.db, session);
  context.streams.endSession(session);
  reply.clearCookie(COOKIE, { path: '/' });
}

/** The hash of the session a request names, whether there is one or not. */
export const sessionOf = (request: FastifyRequest): string => tokenHash(request.cookies[COOKIE] ?? '');
const personIn = ({ db, now }: Context, session: string): Me | undefined => personBySession(db, session, now());
export const sessionIsOpen = (context: Context, session: string): boolean => personIn(context, session) !== undefined;
export const readSession = (context: Context, request: FastifyRequest): Me | null =>
  (request.cookies[COOKIE] ? personIn(context, sessionOf(request)) : undefined) ?? null;

/** Who asks. Throws `signed_out` when nobody is signed in. */
export function personOf(request: FastifyRequest): Me {
  if (!request.person) throw new AppError('signed_out');
  return request.person;
}
