import { string, number } from 'yup';
import {
  CLASS_ROLES,
  JOINING,
  joiningPutSchema,
  joinLinkSchema,
  joinSchema,
  letInSchema,
  linkPutSchema,
  ROSTER_STATES,
  rosterSchema,
  type ClassJoining,
  type Invitation,
  type JoinLink,
  type JoinRequest,
  type LeftOutRow,
  type MyRequest,
  type RosterPreview,
  type RosterRow,
} from '../wire';
import { endpoint } from './endpoint';
import { asAssistant, asTeacher } from './permission';
import { amount, fields, flag, id, ids, list, shape, text, time } from './shape';
import { person } from './shapes/marks';

const orNone = () => string().nullable().defined();
const role = () => string().oneOf(CLASS_ROLES).required();
const joining = () => string().oneOf(JOINING).required();
const label = { id: id(), name: text(), tint: text() };
/** In the class, or waiting to be let in. */
const joined = fields({ ...label, joined: flag() });

/** By the code that a class has on its board. */
export const joinByCode = endpoint('POST', '/api/classes/join', { body: joinSchema, answer: joined });
/** What a link leads to. */
export const lookAtLink = endpoint('GET', '/api/join-link', {
  query: joinLinkSchema,
  answer: shape<Invitation>()(
    fields({
      name: text(),
      tint: text(),
      teachers: ids(),
      joining: joining(),
      classId: orNone(),
      asked: flag(),
    }),
  ),
});
export const joinByLink = endpoint('POST', '/api/join-link', { body: joinLinkSchema, answer: joined });

export const myRequests = endpoint('GET', '/api/join-requests', {
  answer: list(
    shape<MyRequest>()(fields({ id: id(), name: orNone(), sourceTitle: orNone(), askedAt: time(), refused: flag() })),
  ),
});
/** Takes back that I asked, or takes a refusal from my list. */
export const withdrawRequest = endpoint('DELETE', '/api/join-requests/:id');
/** Asks to be let in to the other classes an annotation is for, where they let others ask; not which they are. */
export const askByAnnotation = endpoint('POST', '/api/annotations/:id/ask-to-join', {
  answer: fields({ asked: amount() }),
});

const link = shape<JoinLink>()(
  fields({
    id: id(),
    token: id(),
    forWhom: orNone(),
    email: orNone(),
    role: role(),
    madeAt: time(),
    expiresAt: orNone(),
    left: number().nullable().defined(),
    used: amount(),
  }),
);
const request = shape<JoinRequest>()(fields({ id: id(), person, askedAt: time(), sourceTitle: orNone() }));

export const getJoining = endpoint('GET', '/api/classes/:id/joining', {
  may: asAssistant('see how others join'),
  answer: shape<ClassJoining>()(
    fields({ joining: joining(), askable: flag(), links: list(link), requests: list(request) }),
  ),
});
export const putJoining = endpoint('PUT', '/api/classes/:id/joining', {
  may: asAssistant('change how others join'),
  body: joiningPutSchema,
});
/** A new code to join with; the former one ends. Opens a class that was closed. */
export const renewCode = endpoint('POST', '/api/classes/:id/code', {
  may: asAssistant('make a new code'),
  answer: fields({ code: id() }),
});
/** Nobody joins by it any more until a new code is made. */
export const closeCode = endpoint('DELETE', '/api/classes/:id/code', { may: asAssistant('close the class') });
/** The same again is the same link. */
export const putLink = endpoint('PUT', '/api/classes/:id/links/:linkId', {
  may: asAssistant('make a link'),
  body: linkPutSchema,
  answer: link,
});
/** Nobody joins by it any more. */
export const closeLink = endpoint('DELETE', '/api/classes/:id/links/:linkId', { may: asAssistant('close a link') });
export const answerRequest = endpoint('PUT', '/api/classes/:id/requests/:requestId', {
  may: asAssistant('let somebody in'),
  body: letInSchema,
});

const listed = { name: text(), email: id(), role: role() };
const row = shape<RosterRow>()(fields({ ...listed, line: amount(), state: string().oneOf(ROSTER_STATES).required() }));
const leftOut = shape<LeftOutRow>()(
  fields({
    line: amount(),
    words: text(),
    why: string()
      .oneOf(['no_address', 'bad_address', 'no_name', 'twice', 'ended', 'no_part'] as const)
      .required(),
  }),
);
/** Who stands in a list (CSV, or a OneRoster bundle in a zip archive), and what they are here. Nothing is changed. */
export const previewRoster = endpoint('POST', '/api/classes/:id/roster/preview', {
  may: asTeacher('add people from a list'),
  takes: ['text/csv', 'application/zip', 'application/octet-stream'],
  limit: 2 * 1024 * 1024,
  answer: shape<RosterPreview>()(
    fields({ classes: list(fields({ key: text(), title: text(), people: list(row), leftOut: list(leftOut) })) }),
  ),
});
/** Adds who has an account; everybody else is given a link of their own. Who is there already is left as they are. */
export const addRoster = endpoint('POST', '/api/classes/:id/roster', {
  may: asTeacher('add people from a list'),
  body: rosterSchema,
  answer: fields({ added: amount(), invited: list(link) }),
});
