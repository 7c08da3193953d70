/** Study notes: words of one's own with excerpts of what was marked. */
import { array, boolean, number, object, string, type InferType } from 'yup';
import type { Kind } from '../legend/legend';
import type { ExcerptState } from '../study/follow';
import type { AnnotationHit } from './find';
import { idSchema, type AnnotationId, type SourceId, type StudyNoteId } from './ids';
import { kindCodeSchema } from './legend';

/** In characters of its Markdown. */
export const LONGEST_STUDY_NOTE = 1_000_000;
const LONGEST_TITLE = 300;
const MOST_PUT = 1_000;

/** What comes into the note of a source by itself: every mark of mine, or only what I put there. */
export const JOINS = ['all', 'put'] as const;
export type Joins = (typeof JOINS)[number];

const title = () =>
  string().trim().required('Give the note a name.').max(LONGEST_TITLE, `A name may have ${LONGEST_TITLE} characters.`);
const markdown = () =>
  string().max(
    LONGEST_STUDY_NOTE,
    `A note may have ${LONGEST_STUDY_NOTE.toLocaleString('en')} characters. Begin another one for the rest.`,
  );

/** A new note of one's own choosing. */
export const studyNotePutSchema = object({ title: title(), markdown: markdown().default('') }).noUnknown();
export type StudyNotePut = InferType<typeof studyNotePutSchema>;

export const studyNotePatchSchema = object({
  version: number().integer().min(1).required(),
  title: title().optional().default(undefined),
  markdown: markdown().optional(),
  joins: string().oneOf(JOINS),
  /** Which kinds join; none said: all. */
  kinds: array(kindCodeSchema().required()).max(50).default(undefined),
  /** Excerpts of which the person has seen that their annotation changed, and leaves them as they are. */
  settled: array(idSchema().required()).max(MOST_PUT).default(undefined),
  deleted: boolean(),
}).noUnknown();
export type StudyNotePatch = InferType<typeof studyNotePatchSchema>;

export const excerptsPutSchema = object({
  annotationIds: array(idSchema().required())
    .required()
    .min(1)
    .max(MOST_PUT, `At most ${MOST_PUT.toLocaleString('en')} excerpts can be put into a note at once.`),
}).noUnknown();

export interface StudyNoteRow {
  readonly id: StudyNoteId;
  readonly title: string;
  /** Of a note of one source. */
  readonly sourceId: SourceId | null;
  readonly excerpts: number;
  /** Of one's own. */
  readonly words: number;
  readonly createdAt: string;
  readonly changedAt: string;
  readonly version: number;
}

/** An excerpt that stands in a note. */
export interface StudyExcerpt {
  readonly annotationId: AnnotationId;
  readonly state: ExcerptState;
  /** Null where the annotation is no longer there. */
  readonly sourceId: SourceId | null;
  /** The last that is known of it. */
  readonly kind: Kind | null;
  /** As it would be written now, where it was changed on both sides. */
  readonly newer: string | null;
}

export interface StudyNote extends Omit<StudyNoteRow, 'excerpts'> {
  readonly markdown: string;
  readonly joins: Joins;
  readonly kinds: readonly string[];
  readonly excerpts: readonly StudyExcerpt[];
  /** Of the sources its excerpts are of: how a reference names them in full. */
  readonly references: readonly { readonly sourceId: SourceId; readonly words: string }[];
}

/** What could be put into a note. */
export interface StudyCandidate extends Pick<
  AnnotationHit,
  'id' | 'sourceId' | 'kind' | 'quote' | 'note' | 'language'
> {
  /** As in “Farrant 2026, ¶ 3”. */
  readonly reference: string;
  /** As it is written into the note. */
  readonly excerpt: string;
}

export interface StudyCandidates {
  readonly candidates: readonly StudyCandidate[];
  readonly total: number;
}

/** What was put into a note, and what stood there before. */
export interface ExcerptsPut {
  readonly note: StudyNote;
  readonly put: readonly AnnotationId[];
}
