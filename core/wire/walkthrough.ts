/** Notes in an order in which a class is led through them, each with words to say. */
import { array, number, object, string, type InferType } from 'yup';
import type { Spot } from '../anchor/spot';
import { LONGEST_NOTE } from './annotation';
import type { ClassNote } from './class-note';
import { idSchema, type AnnotationId, type ClassId, type WalkthroughId } from './ids';

export const MOST_STEPS = 200;
const name = () => string().trim().required('Give it a name.').max(200, 'A name may have 200 characters.');

export const walkthroughPutSchema = object({
  /** The version that was seen; 0 for a new one. */
  version: number().integer().min(0).required(),
  name: name(),
  steps: array(
    object({
      annotationId: idSchema().required(),
      /** What to say, in Markdown. */
      words: string().max(LONGEST_NOTE, `What you say at one step may have ${LONGEST_NOTE} characters.`).defined(),
    })
      .noUnknown()
      .required(),
  )
    .required()
    .max(MOST_STEPS, `A walkthrough may have ${MOST_STEPS} steps.`)
    .test(
      'once',
      'Each note is one step.',
      // What is sent may be anything.
      (steps: readonly ({ annotationId?: string } | null)[] | undefined) =>
        new Set(steps?.map((step) => step?.annotationId)).size === (steps ?? []).length,
    ),
}).noUnknown();
export type WalkthroughPut = InferType<typeof walkthroughPutSchema>;

/** To which class it is copied, under which id. */
export const walkthroughCopySchema = object({ id: idSchema().required(), classId: idSchema().required() }).noUnknown();

export interface WalkthroughRow {
  readonly id: WalkthroughId;
  readonly name: string;
  readonly steps: number;
  /** Who began it. */
  readonly by: string;
  readonly changedAt: string;
  readonly version: number;
}

/** Whether the students of the class see a note: they do, it is held from them, or it is not for them. */
export const SEEN_BY_CLASS = ['seen', 'held', 'unseen'] as const;
export type SeenByClass = (typeof SEEN_BY_CLASS)[number];

/** A note as it can stand in a walkthrough. */
export interface StepNote extends ClassNote {
  readonly answers: number;
  /** What is meant where it is no words. */
  readonly spot: Spot['type'] | null;
  /** It asks the class. */
  readonly asks: boolean;
  readonly seen: SeenByClass;
  /** I wrote it, for nobody or for whole classes: I can show it to this one, and nobody else sees more by that. */
  readonly canShow: boolean;
}

export interface WalkthroughStep {
  readonly annotationId: AnnotationId;
  readonly words: string;
  /** Null where it was deleted, or I do not see it. */
  readonly note: StepNote | null;
}

export interface Walkthrough extends Omit<WalkthroughRow, 'steps'> {
  readonly classId: ClassId;
  readonly steps: readonly WalkthroughStep[];
}
