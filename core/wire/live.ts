/** A page that a teacher shows to a class live, and the messages of it: each one JSON text on a WebSocket. */
import { boolean, mixed, number, object, type InferType } from 'yup';
import { isDrawnSpot } from '../ink/drawing';
import { idSchema, type AnnotationId, type ClassId, type PersonId, type SourceId, type WalkthroughId } from './ids';
import { MOST_STEPS } from './walkthrough';
import type { ClassLabel } from './source';

/** Of one message, in characters. */
export const LONGEST_LIVE_MESSAGE = 128 * 1024;
const LAST_CHARACTER = 100_000_000;
const LAST_BLOCK = 1_000_000;

const offset = () => number().integer().min(0).max(LAST_CHARACTER);
const range = () =>
  object({ start: offset().required(), end: offset().required() }).noUnknown().nullable().default(null);
/** What is shown: a note, by its own words; or words of a source; or a source from its beginning. */
const place = () =>
  object({
    sourceId: idSchema().required(),
    annotationId: idSchema().nullable().default(null),
    range: range(),
  })
    .noUnknown()
    .required();
/** Which step of how many of a walkthrough, from 0. */
const step = () =>
  object({
    at: number()
      .integer()
      .min(0)
      .max(MOST_STEPS - 1)
      .required(),
    of: number().integer().min(1).max(MOST_STEPS).required(),
  })
    .noUnknown()
    .nullable()
    .default(null);
/** Something drawn, or the point of a pointer: tied to words, as `DrawnSpot` says, never to pixels. */
const ink = () =>
  object({
    range: object({ start: offset().required(), end: offset().required() }).noUnknown().required(),
    spot: mixed(isDrawnSpot).required(),
  }).noUnknown();

/** Begins to show. */
export const liveStartSchema = object({
  walkthroughId: idSchema().nullable().default(null),
  place: place(),
  step: step(),
  /** Also where somebody else shows something now. */
  takeOver: boolean().default(false),
}).noUnknown();
export type LiveStart = InferType<typeof liveStartSchema>;

/** What who shows says. */
const SHOWING = {
  /** Goes to something else. */
  place: object({ place: place(), step: step() }),
  /** The character at the top of the window; null where the place itself is. */
  top: object({ at: offset().nullable().defined() }),
  blank: object({ on: boolean().required() }),
  /** The note of the place and what was answered to it. */
  answers: object({ on: boolean().required() }),
  /** A question to the class, answered now. */
  ask: object({ annotationId: idSchema().nullable().defined() }),
  /** Null: it points at nothing. */
  pointer: object({ at: ink().nullable().default(null) }),
  /** Sent again under the same id, a stroke goes on. */
  ink: object({ id: idSchema().required(), ink: ink().required() }),
  wipe: object({}),
  /** Brings everybody back to what is shown, or one. */
  recall: object({ personId: idSchema().nullable().defined() }),
  /** A raised hand was seen. */
  lower: object({ personId: idSchema().required() }),
};
/** What who follows says. */
const FOLLOWING = {
  /** Looks around alone; `at` is the block of the text they read, from 0. */
  around: object({ on: boolean().required(), at: number().integer().min(0).max(LAST_BLOCK).nullable().defined() }),
  hand: object({ up: boolean().required() }),
  /** Something was missed. */
  whole: object({}),
};
export const LIVE_MESSAGES = { ...SHOWING, ...FOLLOWING };
type Messages = typeof LIVE_MESSAGES;
type Said<Type extends keyof Messages> = { [T in Type]: { readonly type: T } & InferType<Messages[T]> }[Type];
export type ShowingMessage = Said<keyof typeof SHOWING>;
export type FollowingMessage = Said<keyof typeof FOLLOWING>;
export type LiveMessage = ShowingMessage | FollowingMessage;
export const isShowing = ({ type }: LiveMessage): boolean => Object.hasOwn(SHOWING, type);

export type LivePlace = InferType<ReturnType<typeof place>>;
export type LiveInk = NonNullable<InferType<ReturnType<typeof ink>>>;

/** What is shown now. */
export interface Live {
  readonly classId: ClassId;
  readonly by: { readonly id: PersonId; readonly name: string };
  readonly startedAt: string;
  /** Null for students, and where no walkthrough is shown. */
  readonly walkthroughId: WalkthroughId | null;
  readonly place: LivePlace;
  readonly step: { readonly at: number; readonly of: number } | null;
  readonly top: number | null;
  readonly blank: boolean;
  readonly answers: boolean;
  readonly questionId: AnnotationId | null;
}

/** How somebody follows. */
export interface Following {
  readonly around: boolean;
  readonly hand: boolean;
}

export interface Follower extends Following {
  readonly id: PersonId;
  readonly name: string;
  /** Where they look around: the block of the text, from 0. */
  readonly at: number | null;
  /** Since when nothing is heard of them. */
  readonly lostAt: string | null;
}

export interface Stroke {
  readonly id: string;
  readonly ink: LiveInk;
}

/**
 * What the server says. Messages with a number come in order; after a gap in the numbers, `state` is asked for, which
 * says everything.
 */
export type LiveTold =
  | {
      readonly type: 'state';
      readonly n: number;
      /** Null while nothing is shown. */
      readonly live: Live | null;
      readonly ink: readonly Stroke[];
      readonly pointer: LiveInk | null;
      /** What the server knows of me; null where I have just come. */
      readonly me: Following | null;
      readonly teaches: boolean;
    }
  /** What is shown has changed; another place has no ink yet. */
  | { readonly type: 'live'; readonly n: number; readonly live: Live | null }
  | { readonly type: 'top'; readonly n: number; readonly at: number | null }
  | { readonly type: 'pointer'; readonly n: number; readonly at: LiveInk | null }
  | { readonly type: 'ink'; readonly n: number; readonly id: string; readonly ink: LiveInk }
  | { readonly type: 'wipe'; readonly n: number }
  /** To teachers: who follows, in the order of their names. */
  | { readonly type: 'people'; readonly people: readonly Follower[] }
  | { readonly type: 'refused'; readonly words: string }
  /** So often that a silent connection is a lost one. */
  | { readonly type: 'beat' };

/** In milliseconds: how often the server says that it is there, and how long that may be missing. */
export const BEAT_EVERY = 5_000;
export const BEAT_MISSED = 12_000;

/** Why a connection was ended: RFC 6455, 7.4.2, private use. */
export const LIVE_CLOSED = { signedOut: 4401, notMember: 4403, tooFast: 4429, tooMany: 4430 } as const;

/** Where something is shown, as a member is told of it. */
export interface LiveNow {
  readonly class: ClassLabel;
  readonly by: { readonly id: PersonId; readonly name: string };
  readonly startedAt: string;
  readonly sourceId: SourceId;
}
