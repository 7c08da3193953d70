import { liveStartSchema, type LiveNow } from '../wire';
import { endpoint } from './endpoint';
import { asAssistant, asMember } from './permission';
import { fields, id, list, shape, text, time } from './shape';
import { classLabel } from './shapes/sources';

const liveNowFields = fields({
  class: classLabel,
  by: fields({ id: id(), name: text() }),
  startedAt: time(),
  sourceId: id(),
});
const liveNow = shape<LiveNow>()(liveNowFields);

/** What is shown now in classes of mine. */
export const listLive = endpoint('GET', '/api/live', { answer: list(liveNow) });
/** What is shown in one; asked for as a WebSocket (RFC 6455), it is the room in which one shows and follows. */
export const getLive = endpoint('GET', '/api/classes/:id/live', {
  who: 'browser',
  may: asMember,
  answer: shape<LiveNow | null>()(liveNowFields.nullable().defined()),
});
/** Begins to show something to a class, or takes over. */
export const startLive = endpoint('PUT', '/api/classes/:id/live', {
  may: asAssistant('show something to the class'),
  body: liveStartSchema,
  answer: liveNow,
});
export const endLive = endpoint('DELETE', '/api/classes/:id/live', { may: asAssistant('end it') });
