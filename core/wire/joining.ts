import { array, boolean, number, object, string, type InferType } from 'yup';
import type { LeftOutWhy } from '../class/roster';
import { CLASS_ROLES, TINTS, type ClassRole } from './class';
import type { ClassId, PersonId } from './ids';
import { idSchema } from './ids';

/** Who comes with a code or a link is in at once, or has to be let in. */
export const JOINING = ['at_once', 'asked'] as const;
export type Joining = (typeof JOINING)[number];

export const joiningPutSchema = object({
  joining: string().oneOf(JOINING).required(),
  /** Whether those may ask who meet what was written for the class elsewhere. */
  askable: boolean().required(),
}).noUnknown();

/** For so many days a link can be made to work; null is without an end. */
export const LINK_DAYS = [1, 7, 30, 120] as const;
export const linkPutSchema = object({
  days: number().oneOf(LINK_DAYS).nullable().default(null),
  uses: number()
    .transform((value: unknown, written: unknown) => (written === '' ? null : value))
    .typeError('Write for how many people it is.')
    .integer('Write a whole number.')
    .min(1, 'A link is for one person at least.')
    .max(1000, 'A link is for a thousand people at most.')
    .nullable()
    .default(null),
}).noUnknown();
export type LinkPut = InferType<typeof linkPutSchema>;

/** What stands at the end of a link: letters, digits, `-` and `_` (RFC 4648, base64url). */
export const joinLinkSchema = object({
  link: string()
    .required()
    .matches(/^[\w-]{10,80}$/, 'This is no link to join a class with.'),
}).noUnknown();

/** A link by which others join. */
export interface JoinLink {
  readonly id: string;
  readonly token: string;
  /** Whom a list named; null where it is for whoever has it. */
  readonly forWhom: string | null;
  readonly email: string | null;
  readonly role: ClassRole;
  readonly madeAt: string;
  readonly expiresAt: string | null;
  /** How many can still come; null is as many as want to. */
  readonly left: number | null;
  readonly used: number;
}

/** Somebody who waits to be let in. */
export interface JoinRequest {
  readonly id: string;
  readonly person: { readonly id: PersonId; readonly name: string };
  readonly askedAt: string;
  /** On what they met a note of the class, where that is why they ask. */
  readonly sourceTitle: string | null;
}

export interface ClassJoining {
  readonly joining: Joining;
  readonly askable: boolean;
  readonly links: readonly JoinLink[];
  readonly requests: readonly JoinRequest[];
}

/** What somebody with a link is told before they join. */
export interface Invitation {
  readonly name: string;
  readonly tint: string;
  readonly teachers: readonly string[];
  readonly joining: Joining;
  /** The class itself, for who is in it already. */
  readonly classId: ClassId | null;
  readonly asked: boolean;
}

/** A class I asked to be let in to; without its name where I met only a note of it. */
export interface MyRequest {
  readonly id: string;
  readonly name: string | null;
  readonly sourceTitle: string | null;
  readonly askedAt: string;
  readonly refused: boolean;
}

export const letInSchema = object({ letIn: boolean().required() }).noUnknown();

export const MOST_ON_ROSTER = 2000;
export const rosterSchema = object({
  people: array(
    object({
      name: string().trim().required().max(80),
      email: string().trim().lowercase().required().email().max(254),
      role: string().oneOf(CLASS_ROLES).required(),
    })
      .noUnknown()
      .required(),
  )
    .required()
    .min(1, 'Nobody is chosen.')
    .max(MOST_ON_ROSTER, `At most ${MOST_ON_ROSTER} people can be added at once.`),
}).noUnknown();
export type RosterPerson = InferType<typeof rosterSchema>['people'][number];

/** What somebody on a roster is here: in the class, with an account, with a link of their own, or none of it. */
export const ROSTER_STATES = ['member', 'known', 'invited', 'new'] as const;
export type RosterState = (typeof ROSTER_STATES)[number];

export interface RosterRow extends RosterPerson {
  readonly line: number;
  readonly state: RosterState;
}
export interface LeftOutRow {
  readonly line: number;
  readonly words: string;
  readonly why: LeftOutWhy;
}
/** The classes a file holds; one without a title where it is a plain list. */
export interface RosterPreview {
  readonly classes: readonly {
    readonly key: string;
    readonly title: string;
    readonly people: readonly RosterRow[];
    readonly leftOut: readonly LeftOutRow[];
  }[];
}

export const archivedSchema = object({ archived: boolean().required() }).noUnknown();

/** By so many weeks dates are moved, so that they fall on the same day of the week. */
export const YEAR_IN_WEEKS = 52;
export const nextClassSchema = object({
  id: idSchema().required(),
  name: string().trim().required('Give the class a name.').max(80),
  tint: string().oneOf(TINTS).required(),
  /** Null sets no dates. */
  weeks: number().integer().min(1).max(520).nullable().defined(),
  /** The time zone in which times of day stay what they are, by its name in the tz database. */
  zone: string()
    .required()
    .max(60)
    .test('zone', 'This is no time zone.', (name) => isZone(name)),
}).noUnknown();
export type NextClass = InferType<typeof nextClassSchema>;

function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}
