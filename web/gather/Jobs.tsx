import { Suspense, useEffect, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import type { Job } from '@avrelle/core/wire';
import { call } from '../data/call';
import { begunAgain, withJob } from '../data/jobs';
import { keys, useJobs } from '../data/queries';
import { lazily } from '../ui/lazily';
import type { Again } from './JobEnd';
import type { useKeeping } from './use-keeping';

const JobEnd = lazily(() => import('./JobEnd'));

type Keeping = ReturnType<typeof useKeeping>;
const SHOWN = 6;

/** What is being kept, what was kept just now, and what failed, with the reason and the way on. */
export function Jobs({ keeping }: { keeping: Keeping }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const jobs = useJobs().data ?? [];
  const put = (change: (all: Job[]) => Job[]): void => {
    client.setQueryData<Job[]>(keys.jobs, (all) => all && change(all));
  };
  const dismiss = (job: Job): void => {
    put((all) => all.filter((j) => j.id !== job.id));
    void call('DELETE /api/jobs/:id', { params: { id: job.id } }).catch(() => undefined);
  };
  /** Begins from the start at once: the answer may come after the events of how it ended. */
  const again = (job: Job, how: Again = {}): void => {
    put((all) => all.map((j) => (j.id === job.id ? begunAgain(job) : j)));
    call('POST /api/jobs/:id/again', { params: { id: job.id }, body: how }).then(
      (fresh) => put((all) => withJob(all, fresh)),
      () => put((all) => all.map((j) => (j.id === job.id ? job : j))),
    );
  };
  const isAny = jobs.length > 0;
  useEffect(() => {
    // There in time, also where the connection is lost meanwhile.
    if (isAny) JobEnd.fetchCode().catch(() => undefined);
  }, [isAny]);
  const [before] = useState(() => new Set(jobs.map((j) => j.id)));
  const [opened] = useState(() => new Set(before));
  const ready = jobs.find((j) => j.look && j.state === 'done' && !opened.has(j.id));
  useEffect(() => {
    if (!ready) return;
    opened.add(ready.id);
    void navigate(`/look/${ready.id}`);
  }, [ready, opened, navigate]);
  return (
    <>
      <p role="status" className="sr-only">
        {told(jobs.find((j) => !before.has(j.id)))}
      </p>
      {isAny && (
        <ul aria-label="Being kept" className="mt-2 grid gap-1.5 text-[14px]">
          {jobs.slice(0, SHOWN).map((job) => (
            <li
              key={job.id}
              className={`grid grid-cols-[1fr_auto] items-baseline gap-x-4 border-l-[3px] py-0.5 pl-3 ${job.state === 'failed' ? 'border-brick' : 'border-tide'}`}
            >
              <span className="min-w-0">
                <span className="block truncate text-soft" title={job.label}>
                  {job.label}
                </span>
                {(job.state === 'failed' || job.state === 'done') && (
                  <Suspense>
                    <JobEnd job={job} passage={keeping.passages.get(job.id)} onAgain={again} />
                  </Suspense>
                )}
                {(job.state === 'queued' || job.state === 'running') && (
                  <span className="flex items-center gap-3 text-soft">
                    {job.step}…{' '}
                    <progress
                      className="h-1 w-40 accent-[var(--tide)]"
                      value={job.progress}
                      max={1}
                      aria-label={`Keeping ${job.label}`}
                    />
                  </span>
                )}
              </span>
              {(job.state === 'failed' || job.state === 'done') && (
                <button
                  aria-label={`Dismiss ${job.label}`}
                  className="text-faint hover:text-ink"
                  onClick={() => dismiss(job)}
                >
                  ×
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** What is said aloud of the latest that was begun here; that one failed is an alert of its own. */
function told(job: Job | undefined): string {
  if (!job || job.state === 'failed') return '';
  return job.state === 'done' ? `${job.step}: ${job.label}` : `Keeping ${job.label}`;
}
