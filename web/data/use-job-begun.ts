import { useCallback } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { Job } from '@avrelle/core/wire';
import { withJob } from './jobs';
import { keys } from './keys';

/** Shows a job that was begun among those that are under way, before the server tells of it. */
export function useJobBegun(): (job: Job) => void {
  const client = useQueryClient();
  return useCallback((job) => void client.setQueryData<Job[]>(keys.jobs, (jobs) => withJob(jobs ?? [], job)), [client]);
}
