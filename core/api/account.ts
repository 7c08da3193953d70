import { array, boolean, number, object, string } from 'yup';
import { displayName, newPassword } from '@avrelle/core/wire';
import { endpoint } from './endpoint';

const time = () => string().required();
const id = () => string().required();

const meSchema = object({
  id: id(),
  name: string().required(),
  email: string().required(),
  role: string().oneOf(['administrator', 'member']).required(),
});

export const passwordChangeSchema = object({
  current: string().required('Write the password you have now.').max(200),
  password: newPassword(),
}).noUnknown();

export const nameChangeSchema = object({ name: displayName() }).noUnknown();

export const TOKEN_SCOPES = ['read', 'write'] as const;
export const TOKEN_DAYS = [7, 30, 90, 365] as const;
export const tokenSchema = object({
  name: string().trim().required('Say which program it is for.').max(80),
  scope: string().oneOf(TOKEN_SCOPES).required('Choose what the program may do.'),
  days: number().oneOf(TOKEN_DAYS).required('Choose when it ends.'),
}).noUnknown();

const sessionSchema = object({
  id: id(),
  /** What the browser calls itself (RFC 9110, User-Agent); '' where that is not known. */
  agent: string().defined(),
  createdAt: time(),
  seenAt: time(),
  /** The one that asks. */
  here: boolean().required(),
});

const tokenRowSchema = object({
  id: id(),
  name: string().required(),
  scope: string().oneOf(TOKEN_SCOPES).required(),
  createdAt: time(),
  expiresAt: time(),
  /** To the hour; null where it was not used yet. */
  usedAt: string().nullable().defined(),
});

export const changePassword = endpoint('PUT', '/api/account/password', { who: 'browser', body: passwordChangeSchema });
export const changeName = endpoint('PATCH', '/api/account', {
  who: 'browser',
  body: nameChangeSchema,
  answer: meSchema,
});
export const listSessions = endpoint('GET', '/api/account/sessions', {
  who: 'browser',
  answer: array(sessionSchema).required(),
});
export const endSession = endpoint('DELETE', '/api/account/sessions/:id', { who: 'browser' });
/** All but the one that asks. */
export const endOtherSessions = endpoint('DELETE', '/api/account/sessions', { who: 'browser' });
export const listTokens = endpoint('GET', '/api/account/tokens', {
  who: 'browser',
  answer: array(tokenRowSchema).required(),
});
/** The token is in this answer and nowhere else: only its hash is stored. */
export const createToken = endpoint('PUT', '/api/account/tokens/:id', {
  who: 'browser',
  body: tokenSchema,
  answer: object({ token: string().required() }),
});
export const revokeToken = endpoint('DELETE', '/api/account/tokens/:id', { who: 'browser' });

/** How many accounts come at once. */
export const PEOPLE_AT_ONCE = 50;
const accountRowSchema = object({
  id: id(),
  name: string().required(),
  email: string().required(),
  role: string().oneOf(['administrator', 'member']).required(),
  createdAt: time(),
  /** When they were last signed in, as far as it is known; null for never. */
  seenAt: string().nullable().defined(),
  suspended: boolean().required(),
  sources: number().required(),
  classes: number().required(),
});

export const listPeople = endpoint('GET', '/api/people', {
  who: 'administrator',
  query: object({
    search: string().max(100).default(''),
    offset: number().integer().min(0).max(1_000_000).default(0),
  }).noUnknown(),
  answer: object({ people: array(accountRowSchema).required(), total: number().required() }),
});
/** Ends their sessions; nothing of theirs is deleted, and what they shared stays with their classes. */
export const suspendPerson = endpoint('PUT', '/api/people/:id/suspension', { who: 'administrator' });
export const resumePerson = endpoint('DELETE', '/api/people/:id/suspension', { who: 'administrator' });
/** A new password, to be told to the person, who changes it; their sessions and tokens end. */
export const resetPassword = endpoint('POST', '/api/people/:id/password', {
  who: 'administrator',
  answer: object({ password: string().required() }),
});
