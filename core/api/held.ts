import { string } from 'yup';
import { annotationIdsSchema, releaseSchema, type HeldNote } from '../wire';
import { endpoint } from './endpoint';
import { asAssistant } from './permission';
import { amount, fields, list, shape } from './shape';
import { classNote } from './shapes/marks';

const heldNote = shape<HeldNote>()(
  fields({
    ...classNote,
    releaseAt: string().nullable().defined(),
  }),
);
const changed = fields({ changed: amount() });

export const listHeld = endpoint('GET', '/api/classes/:id/held', {
  may: asAssistant('see what is held'),
  answer: list(heldNote),
});
/** Shows it to the students now, or at a time; what is not held any more is left as it is. */
export const releaseHeld = endpoint('POST', '/api/classes/:id/held/release', {
  may: asAssistant('release what is held'),
  body: releaseSchema,
  answer: changed,
});
/** Before a student has seen any of it. */
export const takeBackReleased = endpoint('POST', '/api/classes/:id/held/back', {
  may: asAssistant('take back what was released'),
  body: annotationIdsSchema,
  answer: changed,
});
/** What of others I have had before my eyes. */
export const seeAnnotations = endpoint('POST', '/api/annotations/seen', { body: annotationIdsSchema });
