/** The threads of a class in one place. */
import { boolean, object, string } from 'yup';
import type { ClassNote } from './class-note';
import { idSchema, type AnnotationId, type PersonId } from './ids';

/** `answered` is by the newest answer, `answers` by how many there are. */
export const THREAD_SORTS = ['answered', 'newest', 'place', 'answers', 'author'] as const;
export type ThreadSort = (typeof THREAD_SORTS)[number];
export const THREAD_FILTERS = ['unread', 'unanswered', 'starred', 'endorsed', 'hidden', 'reported'] as const;
export type ThreadFilter = (typeof THREAD_FILTERS)[number];

/** Null shows it again. */
export const hideSchema = object({
  reason: string()
    .trim()
    .nullable()
    .defined()
    .max(500, 'A reason may have 500 characters.')
    .test('said', 'Say why: its author and the teachers read it.', (reason) => reason !== ''),
}).noUnknown();
export const endorseSchema = object({ endorsed: boolean().required() }).noUnknown();
export const reportSchema = object({
  words: string().trim().required('Say what is wrong with it.').max(500, 'A report may have 500 characters.'),
}).noUnknown();
export const starSchema = object({ starred: boolean().required() }).noUnknown();
/** Of one source only, where it is named. */
export const seeThreadsSchema = object({ sourceId: idSchema() }).noUnknown();

/** A note or a mark and what was answered to it. Nothing but a mark without an answer is no thread. */
export interface ThreadRow extends ClassNote {
  readonly tags: readonly string[];
  readonly createdAt: string;
  readonly answers: number;
  /** When the last of it was written. */
  readonly newestAt: string;
  /** How much of it by others I have not had before my eyes. */
  readonly unread: number;
  readonly starred: boolean;
  /** Who of its teachers recommends something in it. */
  readonly endorsed?: string;
  /** Its note is hidden from the students; told to its author and to who teaches. */
  readonly hidden?: true;
  /** Something of it is reported; told to who teaches. */
  readonly reported?: true;
  readonly deleted?: true;
}

/** What somebody asks the teachers of a class to look at, and is not settled. */
export interface Report {
  readonly annotationId: AnnotationId;
  readonly by: { readonly id: PersonId; readonly name: string };
  readonly words: string;
  readonly at: string;
}

export interface ThreadPage {
  readonly threads: readonly ThreadRow[];
  readonly total: number;
  /** How many of all these hold something unread. */
  readonly unread: number;
}
