import { number, string } from 'yup';
import {
  DIGEST_EVERY,
  followSchema,
  muteSchema,
  NOTIFICATION_KINDS,
  notificationSettingsSchema,
  type Follows,
  type Notifications,
} from '../wire';
import { endpoint } from './endpoint';
import { asMember } from './permission';
import { fields, flag, id, list, shape, text } from './shape';
import { classLabel } from './shapes/sources';

const notifications = shape<Notifications>()(
  fields({
    every: string().oneOf(DIGEST_EVERY).required(),
    hour: number().required(),
    zone: text(),
    kinds: list(fields({ kind: string().oneOf(NOTIFICATION_KINDS).required(), desk: flag(), mail: flag() })),
    sends: flag(),
    email: text(),
    muted: list(classLabel),
  }),
);

export const getNotifications = endpoint('GET', '/api/notifications', { who: 'browser', answer: notifications });
export const putNotifications = endpoint('PUT', '/api/notifications', {
  who: 'browser',
  body: notificationSettingsSchema,
  answer: notifications,
});
/** Nothing of the class is told to me any more, or again. */
export const muteClass = endpoint('PUT', '/api/classes/:id/muted', { may: asMember, body: muteSchema });

export const listFollows = endpoint('GET', '/api/follows', {
  answer: shape<Follows>()(
    fields({
      sources: list(fields({ id: id(), title: text() })),
      threads: list(fields({ rootId: id(), sourceId: id(), words: text() })),
      people: list(fields({ id: id(), name: text() })),
    }),
  ),
});
export const followSource = endpoint('PUT', '/api/sources/:id/followed', {
  may: { thing: 'source', as: 'reader' },
  body: followSchema,
});
/** The thread an annotation belongs to. */
export const followThread = endpoint('PUT', '/api/annotations/:id/followed', { body: followSchema });
/** What somebody of my classes writes, as far as I see it. */
export const followPerson = endpoint('PUT', '/api/people/:id/followed', { body: followSchema });

/** Ends the mails of whoever got the one in which the address stands; also by a mail program (RFC 8058). */
export const stopMails = endpoint('POST', '/stop-mails/:hash', {
  who: 'public',
  limit: 1_024,
  takes: ['application/x-www-form-urlencoded', 'multipart/form-data'],
});
