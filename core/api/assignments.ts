import { object } from 'yup';
import { assignmentPutSchema, extensionSchema, idSchema, publishSchema, shownSchema } from '../wire';
import { endpoint } from './endpoint';
import { asAssistant, asMember } from './permission';
import { list } from './shape';
import { assignment, assignmentDetail, classAssignments } from './shapes/assignments';

/** What is set for me, in all of my classes; of one source where it is named. */
export const listMyAssignments = endpoint('GET', '/api/assignments', {
  query: object({ source: idSchema() }).noUnknown(),
  answer: list(assignment),
});
export const listAssignments = endpoint('GET', '/api/classes/:id/assignments', {
  may: asMember,
  answer: classAssignments,
});
/** With how its students read it; a student sees themselves alone, as their teachers do. */
export const getAssignment = endpoint('GET', '/api/classes/:id/assignments/:sourceId', {
  may: asMember,
  answer: assignmentDetail,
});
/** The same as a table: each student with what they read, wrote and answered, and their marks beside the teachers'. */
export const exportStudents = endpoint('GET', '/api/classes/:id/assignments/:sourceId/students.csv', {
  may: asAssistant('look at how its students read'),
  gives: ['text/csv'],
});
/** Each sentence that somebody marked, by how many and as what. */
export const exportPassages = endpoint('GET', '/api/classes/:id/assignments/:sourceId/passages.csv', {
  may: asAssistant('look at how its students read'),
  gives: ['text/csv'],
});
/** Sets a reading, or changes what is set; the class reads the source from then on. */
export const putAssignment = endpoint('PUT', '/api/classes/:id/assignments/:sourceId', {
  may: asAssistant('set a reading'),
  body: assignmentPutSchema,
  answer: assignment,
});
/** What has changed until now is told as such no longer, and the class is told; once for each number. */
export const publishAssignment = endpoint('POST', '/api/classes/:id/assignments/:sourceId/published', {
  may: asAssistant('publish what is set again'),
  body: publishSchema,
  answer: assignment,
});
/** Nothing is asked for any more; the class reads it as before. */
export const removeAssignment = endpoint('DELETE', '/api/classes/:id/assignments/:sourceId', {
  may: asAssistant('change what is set'),
});
/** Shows what everybody wrote to everybody, or withholds it again. */
export const showAssignment = endpoint('POST', '/api/classes/:id/assignments/:sourceId/shown', {
  may: asAssistant('show what the class wrote'),
  body: shownSchema,
  answer: assignment,
});
export const extendAssignment = endpoint('PUT', '/api/classes/:id/assignments/:sourceId/extensions/:personId', {
  may: asAssistant('give more time'),
  body: extensionSchema,
});
