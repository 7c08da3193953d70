import { type DraftId, type ClassId, idSchema, type SourceId, type VersionId } from './ids';
import { array, boolean, number, object, string, tuple, type InferType } from 'yup';
import { AMOUNTS, NO_TAG, READING_STATES, TAG, type Amount, type ReadingState, type SourceKind } from './source-words';
import type { Marked } from '../query/mark-words';
import type { Outline } from '../text/stream';
import type { Kind, Pigment } from '../legend/legend';

/** What a reader should know of a version. */
export interface SourceFacts {
  /** A script makes the content of the page in a browser; only what stood there without it was kept. */
  readonly scripted?: true;
  /** How many pictures, styles and fonts could not be loaded. */
  readonly missing?: number;
  /** How many pictures of a letter lie with strangers and were not asked for. */
  readonly remote?: number;
  readonly pages?: number;
  /** Pages that are pictures only. */
  readonly scanned?: number;
  /** Of a recording, in seconds, as its transcript says. */
  readonly seconds?: number;
  /** False for a recording of which no words came. */
  readonly transcript?: boolean;
  /** Opens the file for those who may read the source. */
  readonly password?: string;
  /** What a text was read as, by its name in the Encoding Standard. */
  readonly encoding?: string;
}

export const tagsSchema = () => array(string().required().trim().lowercase().matches(TAG, NO_TAG)).max(40);

export const keepSchema = object({
  id: idSchema().required(),
  address: string().trim().required('Paste the address of a page.').max(4000),
  tags: tagsSchema().default([]),
  remark: string().trim().max(2_000).default(''),
  amount: string()
    .oneOf(['whole', 'main', 'link'] as const)
    .default('whole'),
  width: number().integer().min(240).max(2_560).nullable().default(null),
  /** To be looked at before it is kept. */
  look: boolean().default(false),
  /** Beside the one that was kept before, not instead of it. */
  apart: boolean().default(false),
}).noUnknown();

/** Beside a file that is sent to be kept, as fields of its form. */
export const uploadFieldsSchema = object({
  tags: tagsSchema().default([]),
  author: string().trim().max(500).default(''),
  remark: string().trim().max(2_000).default(''),
  /** Beside the one that was kept before, not instead of it. */
  apart: boolean().default(false),
});

/** Elements by their address in the draft's snapshot, as outline paths are written. */
const path = () =>
  string()
    .matches(/^\d+(\/\d+)*$/)
    .max(2_000);

export const keepDraftSchema = object({
  id: idSchema().required(),
  amount: string().oneOf(AMOUNTS).required(),
  width: number().integer().min(240).max(2_560).nullable().default(null),
  removed: array(path().required()).max(2_000).default([]),
  passage: object({ start: number().required().integer().min(0), end: number().required().integer().min(1) })
    .nullable()
    .default(null),
  title: string().trim().min(1).max(500).required(),
  author: string().trim().max(500).default(''),
  tags: tagsSchema().default([]),
  remark: string().trim().max(2_000).default(''),
  apart: boolean().default(false),
}).noUnknown();

/** A page fetched to be looked at. */
export interface Draft {
  readonly id: DraftId;
  readonly meta: {
    readonly title: string;
    readonly author: string;
    readonly site: string;
    readonly description: string;
    readonly language: string;
    readonly publishedAt: string | null;
    readonly doi: string;
  };
  readonly kind: SourceKind;
  readonly address: string | null;
  readonly facts: SourceFacts;
  readonly minutes: number;
  /** What was kept of the same page before. */
  readonly before: KeptBefore | null;
}

export interface KeptBefore {
  readonly sourceId: SourceId;
  readonly title: string;
  /** RFC 3339. */
  readonly keptAt: string;
  readonly mine: number;
}

export const sourcePatchSchema = object({
  version: number().required().integer().min(1),
  title: string().trim().min(1).max(500),
  author: string().trim().max(500),
  site: string().trim().max(200),
  doi: string()
    .trim()
    .max(200)
    .matches(/^(10\.\d{4,9}\/\S+)?$/, {
      message: 'A DOI begins with 10. and a number, a slash and a name, as in 10.5555/marsh.7: "${value}" does not.',
    }),
  language: string()
    .trim()
    .max(35)
    .matches(/^([A-Za-z]{2,3}(-[A-Za-z0-9]{1,8})*)?$/, {
      message: 'A language is written as in en, el or pt-BR: "${value}" is not.',
    }),
  description: string().trim().max(2_000),
  publishedAt: string()
    .trim()
    .matches(/^(\d{4}(-\d{2}(-\d{2}(T[\d:.]+Z)?)?)?)?$/, {
      message: 'A date is written as a year, year-month or year-month-day, as in 2026-10-02: "${value}" is not.',
    })
    .nullable(),
  remark: string().trim().max(2_000),
}).noUnknown();

export interface Ease {
  /** Flesch reading ease: 100 and more very easy, 0 and less very hard. */
  readonly ease: number;
  readonly words: number;
  readonly sentences: number;
}

export const sourceTagsSchema = object({ tags: tagsSchema().required() }).noUnknown();

const spansSchema = () =>
  array(tuple([number().required().integer().min(0), number().required().integer().min(0)]).required()).max(20_000);
export const shelfSchema = object({
  /** The version that all but the state count in; where it is not the newest any more, they are passed over. */
  versionId: string(),
  state: string().oneOf(READING_STATES),
  position: number().integer().min(0),
  spans: spansSchema(),
  /** Stretches of a recording that were played, in seconds; added to those that were before. */
  heard: spansSchema(),
}).noUnknown();

export type KeepRequest = InferType<typeof keepSchema>;
export type ShelfPatch = InferType<typeof shelfSchema>;

/** One mark on a strand: where it starts as a share of the source (0 to 1), and its kind. */
export type StrandMark = readonly [at: number, pigment: Pigment];

export interface Strand {
  readonly marks: readonly StrandMark[];
  /** Read stretches as shares of the source, 0 to 1. */
  readonly read: readonly (readonly [number, number])[];
}

export interface ClassLabel {
  readonly id: ClassId;
  readonly name: string;
  readonly tint: string;
}

/** One of my annotations, shown with its source in a list. */
export interface Excerpt {
  readonly id: string;
  readonly kind: Kind;
  readonly quote: Marked;
  /** Its short form. */
  readonly note: string;
}

export interface SourceRow {
  readonly id: SourceId;
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
  readonly amount: Amount;
  readonly doi: string;
  /** What I wrote of it when I kept it; only its owner sees it. */
  readonly remark: string;
  /** Hash of its lead picture. */
  readonly lead: string | null;
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
  readonly versionId: VersionId;
  readonly versionNumber: number;
  /** When the version at hand was kept, RFC 3339. */
  readonly versionKeptAt: string;
  /** Number of the newest version. */
  readonly newest: number;
  /** The viewport the page was kept for, in CSS pixels; null for as wide as there is room. */
  readonly width: number | null;
  readonly facts: SourceFacts;
  /** The file it was made of. */
  readonly file: { readonly mediaType: string; readonly size: number } | null;
  readonly length: number;
  readonly position: number;
  readonly spans: readonly (readonly [number, number])[];
  /** Stretches of a recording that I played, in whole seconds. */
  readonly heard: readonly (readonly [number, number])[];
}

export interface SourceText {
  readonly versionId: VersionId;
  readonly text: string;
  readonly outline: Outline;
}

/** What a picture was made of, by its content, and which part of that it shows, in shares. */
export const pictureEditSchema = object({
  from: string()
    .required()
    .matches(/^[0-9a-f]{64}$/, 'Name the picture it was made of by its SHA-256.'),
  x: number().min(0).max(1).default(0),
  y: number().min(0).max(1).default(0),
  width: number().moreThan(0).max(1).default(1),
  height: number().moreThan(0).max(1).default(1),
}).noUnknown();
