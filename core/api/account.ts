import { number, object, string } from 'yup';
import {
  nameChangeSchema,
  passwordChangeSchema,
  signInSchema,
  signUpSchema,
  TOKEN_SCOPES,
  tokenSchema,
  type Me,
  type Welcome,
} from '../wire';
import { endpoint } from './endpoint';
import { fields, flag, id, list, shape, text, time } from './shape';

export const me = shape<Me>()(
  fields({
    id: id(),
    name: text(),
    email: text(),
    role: string()
      .oneOf(['administrator', 'member'] as const)
      .required(),
  }),
);

/** Anybody may send these, so little is read of them. */
const FROM_ANYBODY = 16 * 1024;

export const getWelcome = endpoint('GET', '/api/welcome', {
  who: 'public',
  answer: shape<Welcome>()(
    fields({
      me: me.nullable().defined(),
      signUp: flag(),
      firstAccount: flag(),
      event: text(),
      samples: list(fields({ name: text(), about: text(), email: text(), password: text() })),
    }),
  ),
});
/** This description. */
export const describeApi = endpoint('GET', '/api/openapi.json', { who: 'public', gives: ['application/json'] });
export const signIn = endpoint('POST', '/api/session', {
  who: 'public',
  limit: FROM_ANYBODY,
  body: signInSchema,
  answer: me,
});
export const signOut = endpoint('DELETE', '/api/session', { who: 'public', limit: FROM_ANYBODY });
export const signUp = endpoint('POST', '/api/people', {
  who: 'public',
  limit: FROM_ANYBODY,
  body: signUpSchema,
  answer: me,
});

const sessionSchema = fields({
  id: id(),
  /** What the browser calls itself (RFC 9110, User-Agent); '' where that is not known. */
  agent: string().defined(),
  createdAt: time(),
  seenAt: time(),
  /** The one that asks. */
  here: flag(),
});

const tokenRowSchema = fields({
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
  answer: me,
});
export const listSessions = endpoint('GET', '/api/account/sessions', {
  who: 'browser',
  answer: list(sessionSchema),
});
export const endSession = endpoint('DELETE', '/api/account/sessions/:id', { who: 'browser' });
/** All but the one that asks. */
export const endOtherSessions = endpoint('DELETE', '/api/account/sessions', { who: 'browser' });
export const listTokens = endpoint('GET', '/api/account/tokens', {
  who: 'browser',
  answer: list(tokenRowSchema),
});
/** The token is in this answer and nowhere else: only its hash is stored. */
export const createToken = endpoint('PUT', '/api/account/tokens/:id', {
  who: 'browser',
  body: tokenSchema,
  answer: fields({ token: id() }),
});
export const revokeToken = endpoint('DELETE', '/api/account/tokens/:id', { who: 'browser' });

const accountRowSchema = fields({
  id: id(),
  name: string().required(),
  email: string().required(),
  role: string().oneOf(['administrator', 'member']).required(),
  createdAt: time(),
  /** When they were last signed in, as far as it is known; null for never. */
  seenAt: string().nullable().defined(),
  suspended: flag(),
  sources: number().required(),
  classes: number().required(),
});

export const listPeople = endpoint('GET', '/api/people', {
  who: 'administrator',
  query: object({
    search: string().max(100).default(''),
    offset: number().integer().min(0).max(1_000_000).default(0),
  }).noUnknown(),
  answer: fields({ people: list(accountRowSchema), total: number().required() }),
});
/** Ends their sessions; nothing of theirs is deleted, and what they shared stays with their classes. */
export const suspendPerson = endpoint('PUT', '/api/people/:id/suspension', { who: 'administrator' });
export const resumePerson = endpoint('DELETE', '/api/people/:id/suspension', { who: 'administrator' });
/** A new password, to be told to the person, who changes it; their sessions and tokens end. */
export const resetPassword = endpoint('POST', '/api/people/:id/password', {
  who: 'administrator',
  answer: fields({ password: id() }),
});
