import type { Job } from '@avrelle/core/wire';

const RANK = { queued: 0, running: 1, done: 2, failed: 2 } as const;

/** Puts what is known of a job into the list. An answer may come after an event that was sent later: what is further along stays. */
export function withJob(jobs: readonly Job[], job: Job): Job[] {
  const known = jobs.find((j) => j.id === job.id);
  const older = known && (RANK[known.state] > RANK[job.state] || (known.state === job.state && known.progress > job.progress));
  return older ? [...jobs] : [job, ...jobs.filter((j) => j.id !== job.id)];
}
