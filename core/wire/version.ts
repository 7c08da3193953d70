import { type VersionId, idSchema } from './ids';
import { boolean, number, object, string, type InferType } from 'yup';
import type { Change } from '../anchor/compare';
import { ENCODINGS, type Encoding } from './encodings';

/** Where its author says an annotation belongs in a version; both null to go by what was found again. */
export const placeSchema = object({
  versionId: idSchema().required(),
  start: number().integer().min(0).nullable().defined(),
  end: number().integer().min(1).nullable().defined(),
}).noUnknown();
export type PlacePut = InferType<typeof placeSchema>;

export const againSchema = object({
  id: idSchema().required(),
  /** With the pictures of a letter that lie with strangers. */
  remote: boolean().default(false),
  /** Read as written in this encoding, whatever it seems to be. */
  encoding: string().oneOf(Object.keys(ENCODINGS) as Encoding[]),
}).noUnknown();

/** A failed job is tried again, with a password where its file wants one; what had been kept before is kept all the same. */
export const retrySchema = object({
  password: string().max(500),
  as: string().oneOf(['version', 'apart'] as const),
}).noUnknown();

export interface VersionRow {
  readonly id: VersionId;
  readonly number: number;
  /** RFC 3339 date-time. */
  readonly keptAt: string;
  /** UTF-16 units of its text. */
  readonly length: number;
}

/** What changed from one version to another: ranges of the two texts. */
export interface Comparison {
  readonly from: VersionRow;
  readonly to: VersionRow;
  readonly before: string;
  readonly after: string;
  readonly changes: readonly Change[];
}

/** What became of a file of annotations that was brought in. */
export interface BroughtIn {
  readonly brought: number;
  /** Of one's own, there before. */
  readonly already: number;
  /** Which of the file, counted from 1, could not be read, and why. */
  readonly refused: readonly { readonly number: number; readonly why: string }[];
}
