import { array, object, string } from 'yup';
import { endpoint } from './endpoint';

export const CLASS_ROLES = ['teacher', 'assistant', 'student'] as const;
export const roleChangeSchema = object({ role: string().oneOf(CLASS_ROLES).required() }).noUnknown();
const labelSchema = object({ id: string().required(), name: string().required(), tint: string().required() });

/** What its author wrote for the class stays there. */
export const leaveClass = endpoint('DELETE', '/api/classes/:id/membership', { who: 'signed-in' });
export const changeRole = endpoint('PUT', '/api/classes/:id/members/:personId', {
  who: 'signed-in',
  body: roleChangeSchema,
});
export const removeMember = endpoint('DELETE', '/api/classes/:id/members/:personId', { who: 'signed-in' });
/** A new code to join with; the former one ends. Opens a class that was closed. */
export const renewCode = endpoint('POST', '/api/classes/:id/code', {
  who: 'signed-in',
  answer: object({ code: string().required() }),
});
/** Nobody joins any more until a new code is made. */
export const closeCode = endpoint('DELETE', '/api/classes/:id/code', { who: 'signed-in' });
/** For all of its members; its teachers can bring it back for thirty days. */
export const deleteClass = endpoint('DELETE', '/api/classes/:id', { who: 'signed-in' });
export const restoreClass = endpoint('POST', '/api/classes/:id/restore', { who: 'signed-in', answer: labelSchema });
export const listDeletedClasses = endpoint('GET', '/api/deleted-classes', {
  who: 'signed-in',
  answer: array(labelSchema.shape({ deletedAt: string().required() })).required(),
});
