import { createHash, randomBytes } from 'node:crypto';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Me, PersonId } from '@avrelle/core/wire';
import type { Context } from '../context';
import { AppError } from '../errors';
import { deleteSession, insertSession, personBySession, sessionSeen, sessionsOf } from './queries';
import { personByToken, tokenUsed, type Scope } from './token-queries';

export const COOKIE = 'avrelle_session';
const DAYS = 30;
const DAY = 86_400_000;
/** When somebody was seen is written down so often, in milliseconds; more would be a write with every question. */
const SEEN_EVERY = 10 * 60_000;
const USED_EVERY = 60 * 60_000;
const LONGEST_AGENT = 300;
/** By which a token is known for one, also where it was pasted by mistake. */
export const TOKEN_PREFIX = 'avrelle_';

declare module 'fastify' {
  interface FastifyRequest {
    person: Me | null;
    /** What the token that came with the request lets a program do; null where somebody signed in. */
    scope: Scope | null;
  }
}

/** Tokens are stored hashed: a stolen database signs nobody in. */
export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex');
export const newToken = (): string => randomBytes(32).toString('base64url');

export const daysFrom = (now: string, days: number): string => new Date(Date.parse(now) + days * DAY).toISOString();
const isOlder = (time: string | null, than: number, now: string): boolean =>
  time === null || Date.parse(now) - Date.parse(time) >= than;

export function startSession(context: Context, request: FastifyRequest, reply: FastifyReply, personId: PersonId): void {
  const token = newToken();
  const now = context.now();
  const expiresAt = daysFrom(now, DAYS);
  const agent = (request.headers['user-agent'] ?? '').slice(0, LONGEST_AGENT);
  insertSession(context.db, { tokenHash: tokenHash(token), id: context.newId(), personId, now, expiresAt, agent });
  reply.setCookie(COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: context.config.secureCookies,
    expires: new Date(expiresAt),
  });
}

export function endSession(context: Context, request: FastifyRequest, reply: FastifyReply): void {
  endSessionBy(context, sessionOf(request));
  reply.clearCookie(COOKIE, { path: '/' });
}

function endSessionBy({ db, streams }: Context, hash: string): void {
  deleteSession(db, hash);
  streams.endSession(hash);
}

/** Ends the sessions of a person that `ends` says; how many these were. */
export function endSessions(
  context: Context,
  personId: PersonId,
  ends: (session: { readonly id: string; readonly hash: string }) => boolean = () => true,
): number {
  const ended = sessionsOf(context.db, personId, context.now()).filter(({ id, tokenHash: hash }) => ends({ id, hash }));
  for (const session of ended) endSessionBy(context, session.tokenHash);
  return ended.length;
}

/** The hash of the session a request names, whether there is one or not. */
export const sessionOf = (request: FastifyRequest): string => tokenHash(request.cookies[COOKIE] ?? '');
export const sessionIsOpen = ({ db, now }: Context, session: string): boolean =>
  personBySession(db, session, now()) !== undefined;

/** Sets who asks: by the token of a program, else by the session of a browser. Throws `bad_token`. */
export function readAsker(context: Context, request: FastifyRequest): void {
  const bearer = /^Bearer\s+(\S+)$/i.exec(request.headers.authorization ?? '')?.[1];
  if (bearer !== undefined) readToken(context, request, bearer);
  else if (request.cookies[COOKIE]) readSession(context, request);
}

function readToken({ db, now }: Context, request: FastifyRequest, bearer: string): void {
  const found = personByToken(db, tokenHash(bearer), now());
  if (!found) throw new AppError('bad_token');
  const { tokenId, scope, usedAt, ...person } = found;
  request.person = person;
  request.scope = scope;
  if (isOlder(usedAt, USED_EVERY, now())) tokenUsed(db, tokenId, now());
}

function readSession({ db, now }: Context, request: FastifyRequest): void {
  const session = sessionOf(request);
  const found = personBySession(db, session, now());
  if (!found) return;
  const { seenAt, ...person } = found;
  request.person = person;
  if (isOlder(seenAt, SEEN_EVERY, now())) sessionSeen(db, session, now());
}

/** Who asks. Throws `signed_out` when nobody is signed in. */
export function personOf(request: FastifyRequest): Me {
  if (!request.person) throw new AppError('signed_out');
  return request.person;
}
