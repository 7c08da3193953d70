import type { Job } from '@avrelle/core/wire';
import type { Context } from '../context';
import { AppError } from '../errors';
import { insertJob, jobOf, type NewJob } from './queries';

/** Puts a job into the table and sets the runner going. The same id again is the same job; one of somebody else's throws `id_taken`. Throws `no_room`. */
export function startJob(
  { db, now, jobs, room }: Pick<Context, 'db' | 'now' | 'jobs' | 'room'>,
  job: NewJob,
  password?: string,
): Job {
  room.check(job.personId);
  insertJob(db, job, now());
  jobs.kick(job.id, password);
  const made = jobOf(db, job.personId, job.id);
  if (!made) throw new AppError('id_taken', { id: job.id });
  return made;
}
