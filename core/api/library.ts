import { object, string } from 'yup';
import {
  collectionOrderSchema,
  collectionPutSchema,
  collectionSourcesSchema,
  NO_TAG,
  orderSchema,
  savedSearchSchema,
  TAG,
  tagChangeSchema,
  tagTintSchema,
  topicPutSchema,
  type TagPreview,
  type TopicNews,
} from '../wire';
import { endpoint } from './endpoint';
import { hereSchema } from './find';
import { amount, fields, ids, shape } from './shape';
import { byName, collectionDetail, outline, topicPage } from './shapes/lists';

/** The Library beside its list of sources: how much there is of everything. */
export const getOutline = endpoint('GET', '/api/library', { query: hereSchema, answer: outline });

const asReader = { thing: 'collection', as: 'reader' } as const;
const asContributor = { thing: 'collection', as: 'contributor' } as const;
export const getCollection = endpoint('GET', '/api/collections/:id', { may: asReader, answer: collectionDetail });
export const putCollection = endpoint('PUT', '/api/collections/:id', {
  body: collectionPutSchema,
  answer: collectionDetail,
});
export const deleteCollection = endpoint('DELETE', '/api/collections/:id', {
  may: { thing: 'collection', as: 'owner' },
});
export const restoreCollection = endpoint('POST', '/api/collections/:id/restore', { answer: collectionDetail });
export const orderCollections = endpoint('PUT', '/api/collections', { body: orderSchema });
export const orderCollection = endpoint('PUT', '/api/collections/:id/order', {
  may: asContributor,
  body: collectionOrderSchema,
  answer: collectionDetail,
});
export const addToCollection = endpoint('POST', '/api/collections/:id/sources', {
  may: asContributor,
  body: collectionSourcesSchema,
  answer: collectionDetail,
});
export const takeFromCollection = endpoint('DELETE', '/api/collections/:id/sources', {
  may: asContributor,
  body: collectionSourcesSchema,
  answer: collectionDetail,
});

export const putSearch = endpoint('PUT', '/api/searches/:id', { body: savedSearchSchema });
export const deleteSearch = endpoint('DELETE', '/api/searches/:id', { may: { thing: 'saved search', as: 'owner' } });
export const orderSearches = endpoint('PUT', '/api/searches', { body: orderSchema });

/** One's own tags as such. */
export const listTags = endpoint('GET', '/api/tags', { answer: ids() });
export const previewTagChange = endpoint('POST', '/api/tags/preview', {
  body: tagChangeSchema,
  answer: shape<TagPreview>()(fields({ sources: amount(), annotations: amount(), beneath: ids(), merges: ids() })),
});
export const changeTag = endpoint('POST', '/api/tags/change', { body: tagChangeSchema });
export const listTints = endpoint('GET', '/api/tags/tints', { answer: byName('string') });
export const putTint = endpoint('PUT', '/api/tags/tint', { body: tagTintSchema });

/** A tag may hold slashes, so it stands in the query. */
const tagSchema = object({
  tag: string().trim().lowercase().required('Name the tag of the page.').matches(TAG, NO_TAG),
}).noUnknown();
/** A page of one's own about a tag. */
export const getTopic = endpoint('GET', '/api/topics', { query: tagSchema, answer: topicPage });
export const getTopicNews = endpoint('GET', '/api/topics/news', {
  query: tagSchema,
  answer: shape<TopicNews>()(fields({ sourceIds: ids(), annotationIds: ids() })),
});
export const putTopic = endpoint('PUT', '/api/topics', {
  query: tagSchema,
  body: topicPutSchema,
  answer: topicPage,
});
