import { object, string } from 'yup';
import {
  annotationChangesSchema,
  annotationPatchSchema,
  annotationPutSchema,
  placeSchema,
  replyPutSchema,
  type Linked,
} from '../wire';
import { endpoint } from './endpoint';
import { fields, id, ids, list, shape, text } from './shape';
import { annotation, kind } from './shapes/marks';
import { ofVersion } from './sources';

export const listAnnotations = endpoint('GET', '/api/sources/:id/annotations', {
  may: { thing: 'source', as: 'reader' },
  query: ofVersion,
  answer: list(annotation),
});
export const getAnnotation = endpoint('GET', '/api/annotations/:id', {
  answer: annotation,
});
/** A repeated write changes nothing. */
export const putAnnotation = endpoint('PUT', '/api/annotations/:id', { body: annotationPutSchema, answer: annotation });
/** Where its author says it belongs in a version. */
export const placeAnnotation = endpoint('PUT', '/api/annotations/:id/place', { body: placeSchema, answer: annotation });
export const putReply = endpoint('PUT', '/api/replies/:id', { body: replyPutSchema, answer: annotation });
/** All of them or none. */
export const patchAnnotations = endpoint('POST', '/api/annotations/changes', {
  body: annotationChangesSchema,
  answer: list(annotation),
});
export const patchAnnotation = endpoint('PATCH', '/api/annotations/:id', {
  body: annotationPatchSchema,
  answer: annotation,
});

const linked = shape<Linked>()(
  fields({
    id: id(),
    sourceId: id(),
    title: text(),
    author: text(),
    kind,
    note: text(),
    rootId: string().nullable().defined(),
  }),
);
const toSchema = object({ to: string().max(200).default('') }).noUnknown();
/** Whatever of mine or my classes leads to `avrelle:annotation/ID`, or a source. */
export const listLinks = endpoint('GET', '/api/links', { query: toSchema, answer: list(linked) });
/** The tags whose pages of mine lead there. */
export const listTopicsLinking = endpoint('GET', '/api/links/topics', { query: toSchema, answer: ids() });

/** A picture in a note: what every browser shows and no script can hide in. */
export const putPicture = endpoint('POST', '/api/pictures', {
  takes: ['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'image/avif'],
  limit: 10 * 1024 * 1024,
  answer: fields({ hash: id() }),
});
export const getPicture = endpoint('GET', '/pictures/:hash', { gives: ['image/*'] });
