import { groupsPutSchema } from '../wire';
import { endpoint } from './endpoint';
import { asAssistant } from './permission';
import { amount, fields } from './shape';

/**
 * Who is in which group. A group that is not among them is dissolved: what was written for it stays with its author and
 * the teachers.
 */
export const putGroups = endpoint('PUT', '/api/classes/:id/groups', {
  may: asAssistant('make groups'),
  body: groupsPutSchema,
  answer: fields({ version: amount() }),
});
