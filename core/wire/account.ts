import type { PersonId } from './ids';
import { number, object, string, type InferType } from 'yup';

/** Signs that turn the direction of writing, have no width, or are not to be seen at all (Unicode, general categories Cc and Cf, and blanks that look like letters). */
const UNSEEN = /[\p{Cc}\p{Cf}\u115F\u1160\u3164\uFFA0\u2800]/u;

export const signInSchema = object({
  email: string()
    .trim()
    .required('Write your e-mail address.')
    .email('Write your e-mail address as name@example.test.')
    .max(254),
  password: string().required('Write your password.').max(200),
}).noUnknown();

/** A person's name, as others see it. */
const displayName = () =>
  string()
    .trim()
    .required('Write the name others will see beside your notes.')
    .max(80)
    .test(
      'plain',
      'A name has letters, spaces and ordinary signs; this one holds signs that cannot be seen.',
      (name) => !UNSEEN.test(name),
    );
const newPassword = () =>
  string()
    .required('Choose a password of at least 10 characters.')
    .min(10, 'Choose a password of at least 10 characters.')
    .max(200);

export const signUpSchema = object({
  email: string()
    .trim()
    .required('Write your e-mail address.')
    .email('Write your e-mail address as name@example.test.')
    .max(254),
  name: displayName(),
  password: newPassword(),
}).noUnknown();

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

export type SignIn = InferType<typeof signInSchema>;
export type SignUp = InferType<typeof signUpSchema>;

export interface Person {
  readonly id: PersonId;
  readonly name: string;
}

export interface Me extends Person {
  readonly email: string;
  readonly role: 'administrator' | 'member';
}

/** What a page may know before anyone signs in. */
export interface Welcome {
  readonly me: Me | null;
  readonly signUp: boolean;
  readonly firstAccount: boolean;
  /** The last event there was: whatever is asked for from now on knows of it. */
  readonly event: string;
  /** Whom a demo lets anybody be; nobody anywhere else. */
  readonly samples: readonly SamplePerson[];
}

/** An account that a demo gives away. */
export interface SamplePerson extends SignIn {
  readonly name: string;
  /** Who this is, in a few words. */
  readonly about: string;
}
