/** Cards: what was marked, to be remembered. */
import { array, boolean, number, object, string, type InferType } from 'yup';
import type { Spot } from '../anchor/spot';
import type { Kind } from '../legend/legend';
import { RATINGS, RETENTION, type CardRating, type MemoryState } from '../review/rating';
import type { PassagePart } from '../review/slips';
import { idSchema, type AnnotationId, type CardId, type ClassId, type SourceId, type VersionId } from './ids';
import { LONGEST_NOTE } from './annotation';

const LONGEST_QUESTION = 2_000;
const MOST_SLIPS = 50;
const LONGEST_SLIP = 500;
/** Cards of one person: more than a lifetime of practising, and what one table of them may bring. */
export const MOST_CARDS = 100_000;

const question = () =>
  string()
    .trim()
    .max(LONGEST_QUESTION, `A question may have ${LONGEST_QUESTION.toLocaleString('en')} characters.`);
const answer = () =>
  string()
    .trim()
    .max(LONGEST_NOTE, `An answer may have ${LONGEST_NOTE.toLocaleString('en')} characters.`);
const slip = object({
  at: number().integer().min(-1_000_000).max(1_000_000).required(),
  words: string().required().max(LONGEST_SLIP),
}).noUnknown();
const slips = () =>
  array(slip.required()).max(MOST_SLIPS, `A card may have ${MOST_SLIPS} slips. Make another card for the rest.`);

/** A new card. Of one without a mark, its own words are all there is. */
export const cardPutSchema = object({
  annotationId: idSchema().nullable().default(null),
  question: question().default(''),
  answer: answer().default(''),
  slips: slips().default([]),
  /** The area that was marked lies under a slip. */
  covers: boolean().default(false),
}).noUnknown();
export type CardPut = InferType<typeof cardPutSchema>;

export const cardPatchSchema = object({
  version: number().integer().min(1).required(),
  question: question(),
  answer: answer(),
  slips: slips().default(undefined),
  covers: boolean(),
  deleted: boolean(),
}).noUnknown();
export type CardPatch = InferType<typeof cardPatchSchema>;

export const cardAnswerSchema = object({
  rating: string().oneOf(RATINGS).required(),
  /** How often the card had been answered when it was shown: an answer to what was answered elsewhere does not count. */
  seen: number().integer().min(0).required(),
  /** When it was given, where it is sent later; RFC 3339. */
  at: string().test('time', 'A time is written as in 2026-10-02T08:00:00.000Z.', isTime),
}).noUnknown();
export type CardAnswer = InferType<typeof cardAnswerSchema>;

function isTime(value: string | undefined): boolean {
  return value === undefined || (/^\d{4}-\d\d-\d\dT[\d:.]+Z$/.test(value) && !Number.isNaN(Date.parse(value)));
}

export const restSchema = object({ resting: boolean().required() }).noUnknown();

const { least, most } = RETENTION;
export const reviewWishSchema = object({
  retention: number()
    .typeError('Give a number of percent.')
    .min(least, `Between ${least * 100} and ${most * 100} %: below, practising makes little sense.`)
    .max(most, `Between ${least * 100} and ${most * 100} %: above, cards would come back nearly every day.`)
    .required(),
  newPerDay: number().typeError('Give a number.').integer('Give a whole number.').min(0).max(1_000).required(),
  answersPerDay: number().typeError('Give a number.').integer('Give a whole number.').min(1).max(10_000).required(),
}).noUnknown();
export type ReviewWish = InferType<typeof reviewWishSchema>;

export const cardTableSchema = object({
  table: string().required('Choose a table with the columns question and answer.').max(20_000_000),
}).noUnknown();

/** Whether the passage of a card is still what it was. */
export const PASSAGE_STATES = ['placed', 'changed', 'unplaced', 'deleted', 'none'] as const;
export type PassageState = (typeof PASSAGE_STATES)[number];

export interface PassageBlock {
  /** In UTF-16 units of the text; together with the length of its parts, where it stands. */
  readonly start: number;
  readonly isHeading: boolean;
  /** Some of the passage or of a slip is in it; others only stand around. */
  readonly holds: boolean;
  readonly parts: readonly PassagePart[];
}

/** A marked passage in its place, with what stands around it. */
export interface CardPassage {
  readonly state: PassageState;
  /** As in “¶ 3”; '' where nothing is known of it. */
  readonly place: string;
  /** How far into its source it begins, from 0 to 1. */
  readonly share: number;
  /** Where it begins in the text. */
  readonly start: number;
  readonly blocks: readonly PassageBlock[];
  /** Slips whose words are gone. */
  readonly lost: number;
  /** The version it was found in, whose pictures and pages an area lies on; null where it stands nowhere. */
  readonly versionId: VersionId | null;
  readonly kind: Kind | null;
  readonly spot: Spot | null;
  /** The note of the passage, in Markdown; '' where there is none or it is not seen. */
  readonly note: string;
}

/** A card as it is practised by somebody. */
export interface ReviewCard {
  readonly id: CardId;
  readonly version: number;
  readonly question: string;
  readonly answer: string;
  readonly slips: readonly { readonly at: number; readonly words: string }[];
  readonly covers: boolean;
  readonly annotationId: AnnotationId | null;
  /** Its source by its title as it was, where it is gone; null for a card without one. */
  readonly source: { readonly id: SourceId | null; readonly title: string; readonly language: string } | null;
  readonly passage: CardPassage;
  /** From whom I have it, where it is not mine, and whether those who teach the class see how I answer. */
  readonly given: { readonly by: string; readonly className: string; readonly named: boolean } | null;
  readonly createdAt: string;
  readonly state: MemoryState;
  readonly due: string;
  readonly seen: number;
  readonly forgotten: number;
  readonly resting: boolean;
  /** The chance, from 0 to 1, that it is remembered now; null for a new one. */
  readonly chance: number | null;
  /** When it would come back after each answer, in their order. */
  readonly comesBack: readonly string[];
}

/** What there is to practise. */
export interface Review {
  /** The first of what is due, those of one source together in the order of its text. */
  readonly cards: readonly ReviewCard[];
  /** How many are due now, within what one wants to practise a day. */
  readonly due: number;
  /** How many more would be due, were it not for that. */
  readonly held: number;
  /** When the next one of today comes back; null where none does. */
  readonly next: string | null;
  /** Of each source, how many of its cards are due. */
  readonly sources: readonly { readonly id: SourceId | null; readonly title: string; readonly count: number }[];
  /** How many come back on each day, today first. */
  readonly days: readonly number[];
  readonly answeredToday: number;
  readonly total: number;
  readonly resting: number;
}

/** A card in a list. */
export interface CardRow extends Pick<
  ReviewCard,
  | 'id'
  | 'version'
  | 'question'
  | 'annotationId'
  | 'due'
  | 'seen'
  | 'forgotten'
  | 'resting'
  | 'state'
  | 'createdAt'
  | 'given'
> {
  /** Its question, or the words under its slips. */
  readonly words: string;
  readonly sourceId: SourceId | null;
  readonly title: string;
  /** From 1, easy, to 10; 0 for a new one. */
  readonly difficulty: number;
  /** How far into its source it stands, from 0 to 1. */
  readonly share: number;
  /** To which classes I gave it. */
  readonly classes: readonly { readonly id: ClassId; readonly name: string }[];
}

export interface CardPage {
  readonly cards: readonly CardRow[];
  readonly total: number;
}

/** How the practising went. */
export interface ReviewStatistics {
  /** Of each week, the last one last: answers, and of cards that had been learnt, how many were remembered. */
  readonly weeks: readonly {
    /** Its Monday, as in 2026-11-30. */
    readonly from: string;
    readonly answers: number;
    readonly learnt: number;
    readonly remembered: number;
    /** How many should have been, by what was known. */
    readonly expected: number;
  }[];
  readonly days: readonly number[];
  readonly hardest: readonly CardRow[];
  readonly total: number;
  readonly learnt: number;
  readonly resting: number;
}

/** What a table of cards brought. */
export interface CardTableResult {
  readonly added: number;
  readonly changed: number;
  /** Lines that were left out, and why. */
  readonly refused: readonly { readonly line: number; readonly why: string }[];
}

export type { CardRating };
