import { string } from 'yup';
import {
  endorseSchema,
  hideSchema,
  reportSchema,
  idSchema,
  seeThreadsSchema,
  starSchema,
  THREAD_FILTERS,
  THREAD_SORTS,
  type Report,
  type ThreadPage,
  type ThreadRow,
} from '../wire';
import { endpoint } from './endpoint';
import { asAssistant, asMember } from './permission';
import { pageSchema } from './find';
import { amount, fields, flag, id, ids, list, shape, text, time } from './shape';
import { annotation, classNote, person, yes } from './shapes/marks';

const thread = shape<ThreadRow>()(
  fields({
    ...classNote,
    tags: ids(),
    createdAt: time(),
    answers: amount(),
    newestAt: time(),
    unread: amount(),
    starred: flag(),
    endorsed: string(),
    hidden: yes(),
    reported: yes(),
    deleted: yes(),
  }),
);

/** Of the threads that I see, those in which the search finds anything. */
export const listThreads = endpoint('GET', '/api/classes/:id/threads', {
  may: asMember,
  query: pageSchema.shape({
    source: idSchema(),
    sort: string().oneOf(THREAD_SORTS),
    only: string().oneOf(THREAD_FILTERS),
  }),
  answer: shape<ThreadPage>()(fields({ threads: list(thread), total: amount(), unread: amount() })),
});
/** All that is there now counts as read. */
export const seeThreads = endpoint('POST', '/api/classes/:id/threads/seen', { may: asMember, body: seeThreadsSchema });
export const starAnnotation = endpoint('PUT', '/api/annotations/:id/star', { body: starSchema });
/** Which annotations of a source have my star. */
export const listStars = endpoint('GET', '/api/sources/:id/stars', {
  may: { thing: 'source', as: 'reader' },
  answer: ids(),
});
/** Recommends it to all who see it, or no longer; for who teaches a class it is for. */
export const endorseAnnotation = endpoint('PUT', '/api/classes/:id/annotations/:annotationId/endorsed', {
  may: asAssistant('recommend what was written'),
  body: endorseSchema,
  answer: annotation,
});
/** From the students of a class, but its author, who reads why. */
export const hideAnnotation = endpoint('PUT', '/api/classes/:id/annotations/:annotationId/hidden', {
  may: asAssistant('hide what was written'),
  body: hideSchema,
  answer: annotation,
});

const report = shape<Report>()(fields({ annotationId: id(), by: person, words: text(), at: time() }));
/** What is reported in a class and not settled. */
export const listReports = endpoint('GET', '/api/classes/:id/reports', {
  may: asAssistant('see what is reported'),
  answer: list(report),
});
/** Asks the teachers of a class to look at something; once more changes the words. */
export const reportAnnotation = endpoint('PUT', '/api/classes/:id/annotations/:annotationId/report', {
  may: asMember,
  body: reportSchema,
});
export const settleReports = endpoint('PUT', '/api/classes/:id/annotations/:annotationId/settled', {
  may: asAssistant('settle what is reported'),
});
