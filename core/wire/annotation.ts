import { array, boolean, lazy, mixed, number, object, string, type InferType, type Schema } from 'yup';
import type { Marked } from '../query/mark-words';
import { isDrawnSpot } from '../ink/drawing';
import type { Kind } from '../legend/legend';
import type { Anchor, Candidate, Located } from '../anchor/anchor';
import {
  idSchema,
  type AnnotationId,
  type ClassId,
  type GroupId,
  type PersonId,
  type SourceId,
  type VersionId,
} from './ids';
import { kindCodeSchema } from './legend';
import { tagsSchema } from './source';

const LONGEST_QUOTE = 20_000;
const MOST_CHANGES = 5_000;

const share = () => number().min(0).max(1);
const seconds = () => number().min(0).max(1_000_000);

/** An area on a page or picture, a stretch of time, or all of the source; see `Spot`. */
const placedSchema = object({
  type: string()
    .oneOf(['area', 'time', 'whole'] as const)
    .required(),
  on: object({ page: number().integer().min(1).max(100_000), picture: string().matches(/^[0-9a-f]{64}$/) })
    .noUnknown()
    .default(undefined)
    .when('type', {
      is: 'area',
      then: (on) =>
        on.test(
          'one',
          'An area lies on one page or one picture.',
          (value) => (value?.page === undefined) !== (value?.picture === undefined),
        ),
    }),
  x: share(),
  y: share(),
  width: share(),
  height: share(),
  from: seconds(),
  to: seconds(),
})
  .noUnknown()
  .default(undefined)
  .test(
    'whole',
    'An area needs x, y, width and height; a time needs from and to, in order.',
    (spot) =>
      spot === undefined ||
      spot.type === 'whole' ||
      (spot.type === 'area'
        ? [spot.x, spot.y, spot.width, spot.height].every((n) => n !== undefined)
        : spot.from !== undefined && spot.to !== undefined && spot.from <= spot.to),
  );
const drawnSchema = mixed(isDrawnSpot).required(
  'A drawing needs a tool, a colour, a width, and strokes tied to words, lines or a picture: 20,000 points at most.',
);
const spotSchema = () =>
  lazy((spot: unknown) =>
    typeof spot === 'object' && spot !== null && 'type' in spot && spot.type === 'drawn' ? drawnSchema : placedSchema,
  );

const anchorFields = object({
  quote: object({
    exact: string().required().max(LONGEST_QUOTE),
    prefix: string().defined().max(500),
    suffix: string().defined().max(500),
  }).required(),
  position: object({
    start: number().required().integer().min(0),
    end: number().required().integer().min(1),
  }).required(),
  block: string().matches(/^(\d+(\/\d+)*)?$/),
  headings: array(string().defined().max(300)).max(10),
  repeats: number().integer().min(1),
  rival: number().integer().min(0),
  spot: spotSchema(),
}).noUnknown();
/** The tests of `placedSchema` say which of its fields an area, a time and a whole source have; its type cannot. */
export const anchorSchema = anchorFields as unknown as Schema<Anchor>;

/** In characters of its Markdown. */
export const LONGEST_NOTE = 20_000;
const noteText = () => string().max(LONGEST_NOTE, 'A note may have 20,000 characters; this one has more.');

/**
 * Of the classes it is for: only who teaches them; whether it is held, which only who teaches them can do; or only a
 * group of one.
 */
const forWhomInThem = {
  teachersOnly: boolean(),
  held: boolean(),
  groupIds: array(idSchema().required()).max(20).default(undefined),
};

export const annotationPutSchema = object({
  sourceId: idSchema().required(),
  versionId: idSchema().required(),
  /** The code of one of the author's own kinds, of one of a class they are in, or `note`. */
  kind: kindCodeSchema().required(),
  note: noteText().defined(),
  tags: tagsSchema().required(),
  anchor: anchorSchema.required(),
  classIds: array(idSchema().required()).required().max(20),
  ...forWhomInThem,
}).noUnknown();

export const replyPutSchema = object({
  parentId: idSchema().required(),
  note: noteText().trim().required('Write something before you send the reply.'),
}).noUnknown();

export const annotationPatchSchema = object({
  version: number().required().integer().min(1),
  kind: kindCodeSchema(),
  note: noteText(),
  tags: tagsSchema(),
  classIds: array(idSchema().required()).max(20),
  ...forWhomInThem,
  deleted: boolean(),
  /** Other words of the source, for one that stands in its text. */
  passage: object({ versionId: idSchema().required(), anchor: anchorSchema.required() })
    .noUnknown()
    .optional()
    .default(undefined),
}).noUnknown();

/** Changes of several annotations of one's own, all of them or none. */
export const annotationChangesSchema = object({
  changes: array(annotationPatchSchema.shape({ id: idSchema().required() }).required())
    .required()
    .min(1)
    .max(MOST_CHANGES, `At most ${MOST_CHANGES} annotations can be changed at once.`),
}).noUnknown();

export type AnnotationPut = InferType<typeof annotationPutSchema>;
export type AnnotationPatch = InferType<typeof annotationPatchSchema>;
export type ReplyPut = InferType<typeof replyPutSchema>;

/** Where an annotation stands in one version of its source. */
export interface AnnotationPlace {
  readonly versionId: VersionId;
  readonly state: Located['state'];
  /** Both null when it is lost. */
  readonly start: number | null;
  readonly end: number | null;
  readonly confidence: number;
  readonly candidates: readonly Candidate[];
  /** True where its author said so. */
  readonly byHand: boolean;
}

export interface HiddenIn {
  readonly classId: ClassId;
  readonly reason: string;
  /** Who hid it. */
  readonly by: string;
}

export interface HeldIn {
  readonly classId: ClassId;
  /** Null: until somebody who teaches releases it. */
  readonly releaseAt: string | null;
}

export interface InGroup {
  readonly classId: ClassId;
  readonly groupId: GroupId;
  readonly name: string;
}

/** Whether one can ask to join a class that an annotation is for. */
export const ELSEWHERE = ['closed', 'askable'] as const;
export type Elsewhere = (typeof ELSEWHERE)[number];

export interface Annotation {
  readonly id: AnnotationId;
  readonly sourceId: SourceId;
  readonly versionId: VersionId;
  readonly author: { readonly id: PersonId; readonly name: string };
  readonly kind: Kind;
  readonly note: string;
  readonly tags: readonly string[];
  /** As it was made, on the version `versionId`. */
  readonly anchor: Anchor | null;
  /** Its words with their links, emphasis, code and formulas, where they have some. */
  readonly quoted?: Marked;
  /** Where it stands in the version at hand; null for a reply, and for one made on a later version. */
  readonly place: AnnotationPlace | null;
  /** The classes it is for, of those the viewer is in. None and mine: only me. */
  readonly classIds: readonly ClassId[];
  /** Of those classes, it is for who teaches them alone. */
  readonly teachersOnly?: true;
  /** In which of them it is for a group alone; told to those who are in it or teach there, and its author. */
  readonly groups?: readonly InGroup[];
  /** Where it is kept from the students, until when; told to its author and to who teaches there. */
  readonly held?: readonly HeldIn[];
  /** Where it is hidden from the students, and why; told to the same. */
  readonly hidden?: readonly HiddenIn[];
  /** It is for another class, too, whose members see it; whether one can ask to join one. Not which. */
  readonly elsewhere?: Elsewhere;
  /** Who of its teachers recommends it. */
  readonly endorsed?: string;
  /** The annotation a thread hangs on; null for one that stands in the text. */
  readonly rootId: AnnotationId | null;
  readonly parentId: string | null;
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly version: number;
  /** Its author took it back after it had been answered: what is left is that it was there. */
  readonly deleted?: true;
}
