import { array, number, object, string, tuple, type InferType } from 'yup';
import { idSchema } from './ids';
import type { Outline } from '../text/stream';
import type { KindCode } from '../key/key';

export const READING_STATES = ['to_read', 'reading', 'finished', 'set_aside'] as const;
export type ReadingState = (typeof READING_STATES)[number];
export const STATE_WORDS: Readonly<Record<ReadingState, string>> = { to_read: 'To read', reading: 'Reading', finished: 'Finished', set_aside: 'Set aside' };

export const SOURCE_KINDS = ['page', 'markdown', 'text'] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];
export const KIND_WORDS: Readonly<Record<SourceKind, string>> = { page: 'page', markdown: 'document', text: 'plain text' };

/** A tag is one word of letters, digits, `-`, `_` and `/`, kept in lower case without its `#`. */
export const TAG = /^[\p{L}\p{M}\p{N}_/-]{1,60}$/u;
export const tagsSchema = () => array(string().required().trim().lowercase().matches(TAG, 'A tag is one word of letters, digits, - _ and /, at most 60 characters: "${value}" is not.')).max(40);

export const keepSchema = object({
  id: idSchema().required(),
  address: string().trim().required('Paste the address of a page.').max(4000),
  tags: tagsSchema().default([]),
}).noUnknown();

export const sourcePatchSchema = object({
  version: number().required().integer().min(1),
  title: string().trim().min(1).max(500),
  author: string().trim().max(300),
  site: string().trim().max(200),
}).noUnknown();

export const sourceTagsSchema = object({ tags: tagsSchema().required() }).noUnknown();

export const shelfSchema = object({
  /** The version that position and spans count in; where it is not the newest any more, those two are passed over. */
  versionId: string(),
  state: string().oneOf(READING_STATES),
  position: number().integer().min(0),
  spans: array(tuple([number().required().integer().min(0), number().required().integer().min(0)]).required()).max(20_000),
}).noUnknown();

export type KeepRequest = InferType<typeof keepSchema>;
export type ShelfPatch = InferType<typeof shelfSchema>;

/** One mark on a strand: where it starts as a share of the source (0 to 1), and its kind. */
export type StrandMark = readonly [at: number, kind: KindCode];

export interface Strand {
  readonly marks: readonly StrandMark[];
  /** Read stretches as shares of the source, 0 to 1. */
  readonly read: readonly (readonly [number, number])[];
}

export interface ClassLabel {
  readonly id: string;
  readonly name: string;
  readonly tint: string;
}

/** One of my annotations, shown with its source in a list. */
export interface Excerpt {
  readonly id: string;
  readonly kind: KindCode;
  readonly quote: string;
  readonly note: string;
}

export interface SourceRow {
  readonly id: string;
  readonly title: string;
  readonly author: string;
  readonly site: string;
  readonly address: string | null;
  readonly kind: SourceKind;
  readonly language: string;
  readonly description: string;
  /** RFC 3339 date-times. */
  readonly publishedAt: string | null;
  readonly keptAt: string;
  readonly minutes: number;
  readonly state: ReadingState;
  /** Share read, 0 to 1. */
  readonly readShare: number;
  readonly tags: readonly string[];
  readonly marks: number;
  readonly mine: number;
  readonly strand: Strand;
  /** My two newest annotations with words of my own. */
  readonly excerpts: readonly Excerpt[];
  readonly classes: readonly ClassLabel[];
  readonly owned: boolean;
  readonly ownerName: string;
  readonly version: number;
}

export interface SourceDetail extends SourceRow {
  readonly versionId: string;
  readonly versionNumber: number;
  /** When the version at hand was kept, RFC 3339. */
  readonly versionKeptAt: string;
  /** Number of the newest version. */
  readonly newest: number;
  readonly length: number;
  readonly position: number;
  readonly spans: readonly (readonly [number, number])[];
}

export interface SourceText {
  readonly versionId: string;
  readonly text: string;
  readonly outline: Outline;
}

export interface Library {
  readonly sources: readonly SourceRow[];
  readonly counts: { readonly states: Readonly<Record<ReadingState, number>>; readonly tags: readonly { readonly tag: string; readonly count: number }[]; readonly all: number };
}
