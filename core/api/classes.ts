import { string } from 'yup';
import {
  CLASS_ROLES,
  archivedSchema,
  classPutSchema,
  nextClassSchema,
  readingsSchema,
  roleChangeSchema,
  type ClassDetail,
  type ClassRow,
  type Member,
} from '../wire';
import { endpoint } from './endpoint';
import { asMember, asTeacher } from './permission';
import { amount, fields, id, list, shape, text, time } from './shape';
import { classLabel, namedGroup, sourceRow } from './shapes/sources';

const role = () => string().oneOf(CLASS_ROLES).required();
const row = {
  id: id(),
  name: text(),
  tint: text(),
  role: role(),
  people: amount(),
  sources: amount(),
  annotations: amount(),
  archivedAt: string().nullable().defined(),
  groups: list(namedGroup),
};
const member = shape<Member>()(
  fields({
    id: id(),
    name: text(),
    role: role(),
    groupId: string().nullable().defined(),
    annotations: amount(),
    replies: amount(),
  }),
);
const detail = shape<ClassDetail>()(
  fields({
    ...row,
    version: amount(),
    groupsVersion: amount(),
    code: string().nullable().defined(),
    asking: amount(),
    members: list(member),
    readings: list(sourceRow),
  }),
);

export const listClasses = endpoint('GET', '/api/classes', { answer: list(shape<ClassRow>()(fields(row))) });
export const getClass = endpoint('GET', '/api/classes/:id', { may: asMember, answer: detail });
/** A new one, or a name and tint for one that is there. */
export const putClass = endpoint('PUT', '/api/classes/:id', { body: classPutSchema, answer: classLabel });
/** Further readings, from a place on. */
export const listReadings = endpoint('GET', '/api/classes/:id/readings', {
  may: asMember,
  query: readingsSchema,
  answer: list(sourceRow),
});
export const addReading = endpoint('PUT', '/api/classes/:id/sources/:sourceId');
export const removeReading = endpoint('DELETE', '/api/classes/:id/sources/:sourceId');

/** What its author wrote for the class stays there. */
export const leaveClass = endpoint('DELETE', '/api/classes/:id/membership', { may: asMember });
export const changeRole = endpoint('PUT', '/api/classes/:id/members/:personId', {
  may: asTeacher('change who teaches'),
  body: roleChangeSchema,
});
export const removeMember = endpoint('DELETE', '/api/classes/:id/members/:personId', {
  may: asTeacher('remove somebody'),
});
/** For all of its members; its teachers can bring it back for thirty days. */
export const deleteClass = endpoint('DELETE', '/api/classes/:id', { may: asTeacher('delete it') });
export const restoreClass = endpoint('POST', '/api/classes/:id/restore', {
  may: { thing: 'deleted class', as: 'teacher' },
  answer: classLabel,
});
export const listDeletedClasses = endpoint('GET', '/api/deleted-classes', {
  answer: list(fields({ id: id(), name: text(), tint: text(), deletedAt: time() })),
});

/** Nothing new is written, set or read in it, and nobody joins; or it goes on again. */
export const archiveClass = endpoint('PUT', '/api/classes/:id/archived', {
  may: asTeacher('archive the class'),
  body: archivedSchema,
});
/** A class of its own that begins with what this one reads, what is set and its Legend: no people, no annotations. */
export const beginNextClass = endpoint('POST', '/api/classes/:id/next', {
  may: asTeacher('begin another class with it'),
  body: nextClassSchema,
  answer: classLabel,
});
