import { type BatchId, idSchema, type FeedId } from './ids';
import { array, boolean, object, string } from 'yup';
import { tagsSchema } from './source';
import type { Job } from './job';

export const MOST_ADDRESSES = 500;

export const batchSchema = object({
  id: idSchema().required(),
  /** Addresses in any text: one a line, a CSV table, a bookmarks file. */
  text: string().required('Paste some addresses, one a line.').max(2_000_000),
  /** Name of the file the text came in, if it came in one. */
  name: string().trim().max(200).default(''),
  tags: tagsSchema().default([]),
  amount: string()
    .oneOf(['whole', 'main', 'link'] as const)
    .default('whole'),
}).noUnknown();

export const batchPatchSchema = object({ paused: boolean().required() }).noUnknown();

/** A list of addresses under way, with what became of each. */
export interface Batch {
  readonly id: BatchId;
  readonly label: string;
  readonly paused: boolean;
  readonly createdAt: string;
  readonly jobs: readonly Job[];
}

export const feedSchema = object({
  id: idSchema().required(),
  address: string().trim().required('Paste the address of a site or its feed.').max(4000),
}).noUnknown();

export interface Feed {
  readonly id: FeedId;
  readonly address: string;
  readonly title: string;
  readonly site: string;
  readonly checkedAt: string;
  /** Why the last look at it failed, in words. */
  readonly error: string | null;
  /** Items that wait. */
  readonly waiting: number;
}

/** Something new of a feed, to be accepted or skipped. */
export interface Arrival {
  readonly id: string;
  readonly feedId: FeedId;
  readonly feed: string;
  readonly address: string;
  readonly title: string;
  readonly author: string;
  readonly summary: string;
  readonly publishedAt: string | null;
  readonly arrivedAt: string;
}

export const settleSchema = object({
  ids: array(idSchema().required()).required().min(1).max(500),
  jobIds: array(idSchema().required()).max(500).default([]),
}).noUnknown();

export interface Intake {
  /** Where letters for me come in; null where this installation takes none. */
  readonly address: string | null;
}
