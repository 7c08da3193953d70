import { type CollectionId, idSchema, type ClassId, type SourceId } from './ids';
import { array, boolean, number, object, string, type InferType } from 'yup';
import { TINTS } from './class';
import { tagsSchema, type SourceRow } from './source';
import { NO_TAG, READING_STATES, TAG, type ReadingState } from './source-words';

/** What stands beside the Library: how much of what there is. */
export interface LibraryOutline {
  readonly all: number;
  readonly states: Readonly<Record<ReadingState, number>>;
  readonly tags: readonly TagCount[];
  readonly collections: readonly CollectionRow[];
  readonly searches: readonly SavedSearch[];
  /** How many sources were deleted in the last thirty days and can be brought back. */
  readonly deleted: number;
}
export interface TagCount {
  readonly tag: string;
  readonly count: number;
}

/** What members of the class it is shared with may do with a collection. */
export const MAY = ['read', 'add'] as const;
const namePart = (what: string) => string().trim().required(`Give the ${what} a name.`).max(80);
const seen = () => number().integer().min(1);

export const collectionPutSchema = object({
  /** The version that was seen; absent for a new one. */
  version: seen(),
  name: namePart('collection'),
  parentId: idSchema().nullable().default(null),
  classId: idSchema().nullable().default(null),
  may: string().oneOf(MAY).default('read'),
}).noUnknown();
export type CollectionPut = InferType<typeof collectionPutSchema>;

/** The whole order of a collection: its sections, and its sources with the section each is in (-1: above the first). */
export const collectionOrderSchema = object({
  version: seen().required(),
  sections: array(string().trim().required().max(80)).required().max(60),
  /** Which of the former sections each of them is, null for a new one; absent where they are as they were. */
  was: array(number().integer().min(0).max(59).nullable().defined()).max(60),
  items: array(
    object({ sourceId: idSchema().required(), section: number().required().integer().min(-1).max(59) }).required(),
  )
    .required()
    .max(5_000),
}).noUnknown();
export type CollectionOrder = InferType<typeof collectionOrderSchema>;
export const collectionSourcesSchema = object({
  sourceIds: array(idSchema().required()).required().min(1).max(500),
  section: number().integer().min(-1).max(59).default(-1),
}).noUnknown();

/** What chosen sources are taken out as: a table, bookmarks, or the study notes of each in one archive. */
export const TAKE_OUT_AS = ['csv', 'bookmarks', 'notes'] as const;
export const exportSchema = object({
  sourceIds: array(idSchema().required()).required().min(1).max(500),
  as: string().oneOf(TAKE_OUT_AS).required('Say what they are to be taken out as.'),
}).noUnknown();

export interface CollectionRow {
  readonly id: CollectionId;
  readonly name: string;
  /** The collection it is in. */
  readonly parentId: string | null;
  readonly classId: ClassId | null;
  readonly className: string | null;
  readonly may: (typeof MAY)[number];
  readonly owned: boolean;
  readonly ownerName: string;
  readonly count: number;
  readonly version: number;
}

export interface CollectionDetail extends CollectionRow {
  readonly sections: readonly string[];
  readonly items: readonly { readonly source: SourceRow; readonly section: number }[];
  /** Sources in it that this person may not read. */
  readonly hidden: number;
}

export const savedSearchSchema = object({
  version: seen(),
  name: namePart('search'),
  query: string().trim().required('Write what the search looks for.').max(1_000),
  classId: idSchema().nullable().default(null),
}).noUnknown();
export const orderSchema = object({ ids: array(idSchema().required()).required().max(500) }).noUnknown();

export interface SavedSearch {
  readonly id: string;
  readonly name: string;
  readonly query: string;
  readonly classId: ClassId | null;
  readonly owned: boolean;
  readonly ownerName: string;
  /** How many sources it finds for this person now; null where its query cannot be read any more. */
  readonly count: number | null;
  readonly version: number;
}

/** What is to be added to one source, taken from it or set: never a whole list, so that what others did meanwhile stays. */
const sourceChangeSchema = object({
  id: idSchema().required(),
  state: string().oneOf(READING_STATES),
  /** The state is set only where it is still this one. */
  ifState: string().oneOf(READING_STATES),
  addTags: tagsSchema().optional().default(undefined),
  takeTags: tagsSchema().optional().default(undefined),
  /** False brings back what was deleted. */
  deleted: boolean(),
  /** Into a collection; at the end of that section where no place is said. */
  putInto: object({
    collectionId: idSchema().required(),
    section: number().integer().min(-1).max(59).default(-1),
    position: number().integer().min(0).max(100_000),
  })
    .noUnknown()
    .optional()
    .default(undefined),
  takeFrom: idSchema(),
  shareWith: idSchema(),
  unshareFrom: idSchema(),
}).noUnknown();
export const sourceChangesSchema = object({
  changes: array(sourceChangeSchema.required()).required().min(1).max(500),
}).noUnknown();
export type SourceChange = InferType<typeof sourceChangeSchema>;

/** What changes came to: what takes back just that, and which sources were not there (any more). */
export interface SourceChangesMade {
  readonly undo: readonly SourceChange[];
  readonly missing: readonly string[];
}

/** A tag becomes another, with all that is beneath it; `to` empty takes it away. What bears both keeps one. */
export const tagChangeSchema = object({
  from: string().trim().lowercase().required('Name the tag.').matches(TAG, NO_TAG),
  to: string().trim().lowercase().default('').matches(TAG, { message: NO_TAG, excludeEmptyString: true }),
  /** Said by whoever knows that tags become one by it. */
  merge: boolean().default(false),
}).noUnknown();
/** The tint a tag is seen in; null takes it away. */
export const tagTintSchema = object({
  tag: string().trim().lowercase().required('Name the tag.').matches(TAG, NO_TAG),
  tint: string()
    .oneOf(TINTS, `A tint is one of ${TINTS.join(', ')}.`)
    .nullable()
    .defined('Name a tint, or none.'),
}).noUnknown();
/** What a change of a tag would come to. */
export interface TagPreview {
  readonly sources: number;
  readonly annotations: number;
  /** Tags beneath it, which go with it. */
  readonly beneath: readonly string[];
  /** New names that are in use, that of the tag itself or of one beneath it: there two become one. */
  readonly merges: readonly string[];
}

/** Of a page about a tag, in characters of its Markdown. */
export const LONGEST_TOPIC = 200_000;
export const topicPutSchema = object({
  /** The version that was seen; 0 where nothing was written yet. */
  version: number().required().integer().min(0),
  text: string().defined().max(LONGEST_TOPIC, 'A page about a tag may have 200,000 characters; this one has more.'),
}).noUnknown();
export interface TagPair {
  readonly a: string;
  readonly b: string;
  readonly together: number;
}
export interface RelatedTag {
  readonly tag: string;
  /** How often both stand on the same source or mark. */ readonly together: number;
}
export interface TopicPage {
  readonly tag: string;
  /** Markdown. */
  readonly text: string;
  /** Null where nothing was written yet. */
  readonly writtenAt: string | null;
  readonly version: number;
  readonly related: readonly RelatedTag[];
  /** How the related stand to each other. */
  readonly pairs: readonly TagPair[];
}

/** What bears a tag, or one beneath it, only since one last wrote about it. */
export interface TopicNews {
  readonly sourceIds: readonly SourceId[];
  readonly annotationIds: readonly string[];
}

export interface DeletedSource {
  readonly id: SourceId;
  readonly title: string;
  readonly deletedAt: string;
  readonly marks: number;
}
