/** What is written for a class and kept from its students until it is released. */
import { array, object, type InferType } from 'yup';
import type { Kind } from '../legend/legend';
import { instant } from './assignment';
import { idSchema, type AnnotationId, type PersonId, type SourceId } from './ids';

export const MOST_HELD = 1_000;
const someIds = () =>
  array(idSchema().required())
    .required()
    .min(1, 'Choose one at least.')
    .max(MOST_HELD, `At most ${MOST_HELD} at once.`);

/** Without a time: at once. Null: by hand, whatever time was set before. */
export const releaseSchema = object({ annotationIds: someIds(), at: instant() }).noUnknown();
export type Release = InferType<typeof releaseSchema>;
export const annotationIdsSchema = object({ annotationIds: someIds() }).noUnknown();

export interface HeldNote {
  readonly id: AnnotationId;
  readonly source: { readonly id: SourceId; readonly title: string; readonly language: string };
  readonly author: { readonly id: PersonId; readonly name: string };
  readonly kind: Kind;
  readonly quote: string;
  /** Without its Markdown. */
  readonly words: string;
  readonly releaseAt: string | null;
}
