import { mixed, number, object, string, type Schema } from 'yup';
import type { Arrival, Batch, Feed, Job, Problem } from '../../wire';
import { amount, fields, flag, id, list, shape, text, time } from '../shape';
import { keptBefore } from './sources';

/** RFC 9457 problem details. */
export const problem = shape<Problem | null>()(
  object({
    type: text(),
    title: text(),
    status: number().required(),
    detail: text(),
    code: text(),
    field: string(),
    current: mixed() as Schema<unknown>,
  })
    .nullable()
    .defined(),
);

export const job = shape<Job>()(
  fields({
    id: id(),
    state: string()
      .oneOf(['queued', 'running', 'done', 'failed'] as const)
      .required(),
    step: text(),
    progress: amount(),
    sourceId: string().nullable().defined(),
    already: flag(),
    error: problem,
    label: text(),
    batchId: string().nullable().defined(),
    look: flag(),
    before: keptBefore,
  }),
);

export const batch = shape<Batch>()(
  fields({ id: id(), label: text(), paused: flag(), createdAt: time(), jobs: list(job) }),
);
export const feed = shape<Feed>()(
  fields({
    id: id(),
    address: text(),
    title: text(),
    site: text(),
    checkedAt: time(),
    error: string().nullable().defined(),
    waiting: amount(),
  }),
);
export const arrival = shape<Arrival>()(
  fields({
    id: id(),
    feedId: id(),
    feed: text(),
    address: text(),
    title: text(),
    author: text(),
    summary: text(),
    publishedAt: string().nullable().defined(),
    arrivedAt: time(),
  }),
);
