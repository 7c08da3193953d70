/** What is written for a class and kept from its students until it is released. */
import { array, object, type InferType } from 'yup';
import { instant } from './assignment';
import type { ClassNote } from './class-note';
import { idSchema } from './ids';

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

export interface HeldNote extends ClassNote {
  readonly releaseAt: string | null;
}
