import { string } from 'yup';
import {
  SEEN_BY_CLASS,
  walkthroughCopySchema,
  walkthroughPutSchema,
  type StepNote,
  type Walkthrough,
  type WalkthroughRow,
} from '../wire';
import { endpoint } from './endpoint';
import { asAssistant } from './permission';
import { amount, fields, flag, id, list, shape, text, time } from './shape';
import { classNote } from './shapes/marks';

const SPOTS = ['area', 'time', 'whole', 'drawn'] as const;
const stepNoteFields = fields({
  ...classNote,
  answers: amount(),
  spot: string().oneOf(SPOTS).nullable().defined(),
  asks: flag(),
  seen: string().oneOf(SEEN_BY_CLASS).required(),
  canShow: flag(),
});
const stepNote = shape<StepNote>()(stepNoteFields);
const row = { id: id(), name: text(), by: text(), changedAt: time(), version: amount() };
const walkthroughRow = shape<WalkthroughRow>()(fields({ ...row, steps: amount() }));
const walkthrough = shape<Walkthrough>()(
  fields({
    ...row,
    classId: id(),
    steps: list(fields({ annotationId: id(), words: text(), note: stepNoteFields.nullable().defined() })),
  }),
);
const may = asAssistant('make a walkthrough');

/** Those of a class, the one that was changed last first. */
export const listWalkthroughs = endpoint('GET', '/api/classes/:id/walkthroughs', { may, answer: list(walkthroughRow) });
export const getWalkthrough = endpoint('GET', '/api/classes/:id/walkthroughs/:walkthroughId', {
  may,
  answer: walkthrough,
});
/** Makes it under the id its author's page made, or changes it. */
export const putWalkthrough = endpoint('PUT', '/api/classes/:id/walkthroughs/:walkthroughId', {
  may,
  body: walkthroughPutSchema,
  answer: walkthrough,
});
export const deleteWalkthrough = endpoint('DELETE', '/api/classes/:id/walkthroughs/:walkthroughId', { may });
export const restoreWalkthrough = endpoint('POST', '/api/classes/:id/walkthroughs/:walkthroughId/restore', { may });
/** The same steps for another class that I teach; the notes are the same, never copies. */
export const copyWalkthrough = endpoint('POST', '/api/classes/:id/walkthroughs/:walkthroughId/copy', {
  may,
  body: walkthroughCopySchema,
  answer: walkthrough,
});
/** What can become a step: the notes I gave a star, the newest star first. */
export const listStarred = endpoint('GET', '/api/classes/:id/starred', { may, answer: list(stepNote) });
export const exportWalkthroughText = endpoint('GET', '/api/classes/:id/walkthroughs/:walkthroughId/steps.md', {
  may,
  gives: ['text/markdown'],
});
/** One file, to be printed. */
export const exportWalkthroughPage = endpoint('GET', '/api/classes/:id/walkthroughs/:walkthroughId/steps.html', {
  may,
  gives: ['text/html'],
});
