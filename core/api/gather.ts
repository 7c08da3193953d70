import { string } from 'yup';
import {
  batchPatchSchema,
  batchSchema,
  feedSchema,
  keepDraftSchema,
  keepSchema,
  retrySchema,
  settleSchema,
} from '../wire';
import { endpoint } from './endpoint';
import { fields, list } from './shape';
import { arrival, batch, feed, job } from './shapes/jobs';
import { draft } from './shapes/sources';

const own = <T extends 'job' | 'draft' | 'feed' | 'list'>(thing: T) => ({ thing, as: 'owner' }) as const;

/** An address. */
export const keep = endpoint('POST', '/api/keep', { body: keepSchema, answer: job });
/** A file, and what is said of it, as a form. */
export const upload = endpoint('POST', '/api/uploads/:id', { takes: ['multipart/form-data'], answer: job });
export const listJobs = endpoint('GET', '/api/jobs', { answer: list(job) });
export const getJob = endpoint('GET', '/api/jobs/:id', { may: own('job'), answer: job });
/** One that failed, with the password its file wants; or what was found to be kept before, kept all the same. */
export const retryJob = endpoint('POST', '/api/jobs/:id/again', { may: own('job'), body: retrySchema, answer: job });
export const dismissJob = endpoint('DELETE', '/api/jobs/:id');

/** A page fetched to be looked at before it is kept. Only who fetched it sees it. */
export const getDraft = endpoint('GET', '/api/drafts/:id', { may: own('draft'), answer: draft });
export const keepDraft = endpoint('POST', '/api/drafts/:id/keep', {
  may: own('draft'),
  body: keepDraftSchema,
  answer: job,
});
export const deleteDraft = endpoint('DELETE', '/api/drafts/:id');
export const getDraftSnapshot = endpoint('GET', '/drafts/:id/', { may: own('draft'), gives: ['text/html'] });
export const getDraftAsset = endpoint('GET', '/drafts/:id/asset/:hash', { may: own('draft'), gives: ['*/*'] });

/** Many addresses as one piece of work. */
export const listBatches = endpoint('GET', '/api/lists', { answer: list(batch) });
export const createBatch = endpoint('POST', '/api/lists', { body: batchSchema, answer: batch });
export const patchBatch = endpoint('PATCH', '/api/lists/:id', {
  may: own('list'),
  body: batchPatchSchema,
  answer: batch,
});
export const retryBatch = endpoint('POST', '/api/lists/:id/again', { may: own('list'), answer: batch });
/** What of it waits is not fetched any more; what was kept stays. */
export const deleteBatch = endpoint('DELETE', '/api/lists/:id', { may: own('list') });

export const listFeeds = endpoint('GET', '/api/feeds', { answer: list(feed) });
export const followFeed = endpoint('POST', '/api/feeds', { body: feedSchema, answer: feed });
export const checkFeed = endpoint('POST', '/api/feeds/:id/check', { may: own('feed'), answer: feed });
export const leaveFeed = endpoint('DELETE', '/api/feeds/:id', { may: own('feed') });
export const exportFeeds = endpoint('GET', '/api/feeds.opml', { gives: ['text/x-opml'] });

/** What is new in them. */
export const listArrivals = endpoint('GET', '/api/arrivals', { answer: list(arrival) });
/** Keeps the items named; `jobIds` are the ids of the jobs this starts, one an item. */
export const acceptArrivals = endpoint('POST', '/api/arrivals/accept', { body: settleSchema, answer: list(job) });
export const skipArrivals = endpoint('POST', '/api/arrivals/skip', { body: settleSchema });
export const restoreArrivals = endpoint('POST', '/api/arrivals/restore', { body: settleSchema });

const intake = fields({ address: string().nullable().defined() });
/** Where letters for me come in; null where this installation takes none. */
export const getIntake = endpoint('GET', '/api/intake', { answer: intake });
export const renewIntake = endpoint('POST', '/api/intake/renew', { answer: intake });
