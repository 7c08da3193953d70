import { array, boolean, number, object, string, type InferType } from 'yup';
import type { AnnotationId, PersonId, SourceId } from './ids';
import type { ClassLabel } from './source';

/**
 * What is new for me: it answers me, stands further down in a thread I began, means me by name, leads to what I wrote,
 * is new in what I follow, was held and has been released, is mine and was hidden, or, where I teach, is reported and
 * not settled; I was let in to a class, a reading is set there or changed, the answers to a question are shown, or a
 * question of mine was answered.
 */
export const NOTICED = [
  'answer',
  'thread',
  'mention',
  'link',
  'followed',
  'released',
  'hidden',
  'reported',
  'let_in',
  'set',
  'changed',
  'shown',
  'answered',
] as const;
export type Noticed = (typeof NOTICED)[number];

/** What one chooses by where to be told; the Desk shows what is due, and who asks to join, by itself. */
export const NOTIFICATION_KINDS = [
  'answer',
  'thread',
  'mention',
  'link',
  'followed',
  'assignment',
  'due',
  'released',
  'question',
  'asking',
  'class',
] as const;
export type NotificationKind = (typeof NOTIFICATION_KINDS)[number];

const KIND_OF: Readonly<Record<Noticed, NotificationKind>> = {
  answer: 'answer',
  thread: 'thread',
  mention: 'mention',
  link: 'link',
  followed: 'followed',
  released: 'released',
  hidden: 'class',
  reported: 'class',
  let_in: 'class',
  set: 'assignment',
  changed: 'assignment',
  shown: 'question',
  answered: 'question',
};
/** What is left out where these kinds are off. */
export const noticedOf = (kinds: readonly NotificationKind[]): Noticed[] =>
  NOTICED.filter((why) => kinds.includes(KIND_OF[why]));

export const DIGEST_EVERY = ['never', 'hour', 'day'] as const;
export type DigestEvery = (typeof DIGEST_EVERY)[number];

/** A name of the tz database (IANA), as far as the platform knows it. */
export function isZone(zone: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone.length > 0;
  } catch {
    return false;
  }
}

export const notificationSettingsSchema = object({
  every: string().oneOf(DIGEST_EVERY).required(),
  /** Of the day in the zone; for mails that come by the day. */
  hour: number().integer().min(0).max(23).required(),
  zone: string()
    .max(100)
    .required()
    .test('zone', 'There is no time zone “${value}”.', (zone) => zone !== undefined && isZone(zone)),
  kinds: array(
    object({
      kind: string().oneOf(NOTIFICATION_KINDS).required(),
      desk: boolean().required(),
      mail: boolean().required(),
    })
      .noUnknown()
      .required(),
  )
    .max(NOTIFICATION_KINDS.length)
    .required()
    .test('once', 'Each kind stands there once.', (kinds) => new Set(kinds?.map((k) => k.kind)).size === kinds?.length),
}).noUnknown();
export type NotificationSettings = InferType<typeof notificationSettingsSchema>;

/** What I have chosen, and what the mails need. */
export interface Notifications extends NotificationSettings {
  /** Whether this installation sends mails. */
  readonly sends: boolean;
  /** Where they go. */
  readonly email: string;
  /** Classes of which I am told nothing. */
  readonly muted: readonly ClassLabel[];
}

/** What I follow and may still see. */
export interface Follows {
  readonly sources: readonly { readonly id: SourceId; readonly title: string }[];
  readonly threads: readonly {
    readonly rootId: AnnotationId;
    readonly sourceId: SourceId;
    /** Its note, or the words it marks, in short. */
    readonly words: string;
  }[];
  readonly people: readonly { readonly id: PersonId; readonly name: string }[];
}

export const followSchema = object({ following: boolean().required() }).noUnknown();
export const muteSchema = object({ muted: boolean().required() }).noUnknown();
