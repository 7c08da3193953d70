import type { Batch, Job } from '@avrelle/core/wire';

const RANK = { queued: 0, running: 1, done: 2, failed: 2 } as const;

/** Puts what is known of a job into the list. An answer may come after an event that was sent later: what is further along stays. */
export function withJob(jobs: readonly Job[], job: Job): Job[] {
  const known = jobs.find((j) => j.id === job.id);
  return known && further(known, job) === known ? [...jobs] : [job, ...jobs.filter((j) => j.id !== job.id)];
}

const further = (known: Job, job: Job): Job =>
  RANK[known.state] > RANK[job.state] || (known.state === job.state && known.progress > job.progress) ? known : job;

/** A list as an answer has it, with what events have told of its jobs meanwhile. */
export function mergedBatch(known: Batch, fresh: Batch): Batch {
  const before = new Map(known.jobs.map((job) => [job.id, job]));
  return { ...fresh, jobs: fresh.jobs.map((job) => further(before.get(job.id) ?? job, job)) };
}

/** What a job that is to be tried again is, before anything is heard of it: one that failed, or found what was kept before. */
export const begunAgain = (job: Job): Job =>
  job.state === 'failed' || job.already
    ? { ...job, state: 'queued', step: 'Waiting', progress: 0, error: null, already: false, before: null }
    : job;
