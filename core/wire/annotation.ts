import { array, boolean, number, object, string, type InferType } from 'yup';
import { KIND_CODES, type KindCode } from '../key/key';
import type { Anchor, Candidate, Located } from '../anchor/anchor';
import { idSchema } from './ids';
import { tagsSchema } from './source';

const LONGEST_QUOTE = 20_000;

export const anchorSchema = object({
  quote: object({ exact: string().required().max(LONGEST_QUOTE), prefix: string().defined().max(500), suffix: string().defined().max(500) }).required(),
  position: object({ start: number().required().integer().min(0), end: number().required().integer().min(1) }).required(),
  block: string().matches(/^(\d+(\/\d+)*)?$/),
  headings: array(string().defined().max(300)).max(10),
  repeats: number().integer().min(1),
  rival: number().integer().min(0),
}).noUnknown();

const noteText = () => string().max(20_000, 'A note may have 20,000 characters; this one has more.');

export const annotationPutSchema = object({
  sourceId: idSchema().required(),
  versionId: idSchema().required(),
  kind: string().oneOf(KIND_CODES).required(),
  note: noteText().defined(),
  tags: tagsSchema().required(),
  anchor: anchorSchema.required(),
  classIds: array(idSchema().required()).required().max(20),
}).noUnknown();

export const replyPutSchema = object({
  parentId: idSchema().required(),
  note: noteText().trim().required('Write something before you send the reply.'),
}).noUnknown();

export const annotationPatchSchema = object({
  version: number().required().integer().min(1),
  kind: string().oneOf(KIND_CODES),
  note: noteText(),
  tags: tagsSchema(),
  classIds: array(idSchema().required()).max(20),
  deleted: boolean(),
}).noUnknown();

export type AnnotationPut = InferType<typeof annotationPutSchema>;
export type AnnotationPatch = InferType<typeof annotationPatchSchema>;
export type ReplyPut = InferType<typeof replyPutSchema>;

/** Where an annotation stands in one version of its source. */
export interface AnnotationPlace {
  readonly versionId: string;
  readonly state: Located['state'];
  /** Both null when it is lost. */
  readonly start: number | null;
  readonly end: number | null;
  readonly confidence: number;
  readonly candidates: readonly Candidate[];
  /** True where its author said so. */
  readonly byHand: boolean;
}

export interface Annotation {
  readonly id: string;
  readonly sourceId: string;
  readonly versionId: string;
  readonly author: { readonly id: string; readonly name: string };
  readonly kind: KindCode;
  readonly note: string;
  readonly tags: readonly string[];
  /** As it was made, on the version `versionId`. */
  readonly anchor: Anchor | null;
  /** Where it stands in the version at hand; null for a reply, and for one made on a later version. */
  readonly place: AnnotationPlace | null;
  /** The classes it is for, of those the viewer is in. None and mine: only me. */
  readonly classIds: readonly string[];
  /** The annotation a thread hangs on; null for one that stands in the text. */
  readonly rootId: string | null;
  readonly parentId: string | null;
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly version: number;
}

/** Sent over the event stream; `gone` names what the viewer may see no longer. */
export type StreamEvent =
  | { readonly type: 'annotation'; readonly annotation: Annotation }
  | { readonly type: 'gone'; readonly annotationId: string; readonly sourceId: string }
  | { readonly type: 'source'; readonly sourceId: string }
  | { readonly type: 'library' }
  | { readonly type: 'desk' }
  | { readonly type: 'classes' }
  | { readonly type: 'job'; readonly job: Job };

export type JobState = 'queued' | 'running' | 'done' | 'failed';

export interface Job {
  readonly id: string;
  readonly state: JobState;
  /** What is being done now, in words. */
  readonly step: string;
  /** 0 to 1. */
  readonly progress: number;
  readonly sourceId: string | null;
  /** True where the page had been kept before and was only found again. */
  readonly already: boolean;
  readonly error: Problem | null;
  readonly label: string;
}

/** RFC 9457 problem details. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly code: string;
  /** The field at fault, where one is. */
  readonly field?: string;
  /** On a stale write: what stands now, so that nothing written is lost. */
  readonly current?: unknown;
}
