import { useEffect, useRef, useState, type FormEvent } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import type { Job } from '@avrelle/core/wire';
import { call } from '../data/call';
import { begunAgain, withJob } from '../data/jobs';
import { keys, useJobs } from '../data/queries';
import { count, day } from '../ui/when';
import type { useKeeping } from './use-keeping';

type Keeping = ReturnType<typeof useKeeping>;
/** With the password a file wants; or as a version of what was kept before, or apart from it. */
interface Again {
  readonly password?: string;
  readonly as?: 'version' | 'apart';
}
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
      {jobs.length > 0 && (
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
                {job.state === 'failed' && <Failed job={job} onAgain={again} />}
                {job.state === 'done' && <Done job={job} passage={keeping.passages.get(job.id)} onAgain={again} />}
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

function Done({
  job,
  passage,
  onAgain,
}: {
  job: Job;
  passage: string | undefined;
  onAgain: (job: Job, how: Again) => void;
}) {
  if (job.look)
    return (
      <span>
        {job.step}.{' '}
        <Link className="act" to={`/look/${job.id}`}>
          Look at it
        </Link>
      </span>
    );
  const open = job.sourceId && (
    <Link className="act" to={`/source/${job.sourceId}${passage ? `?${new URLSearchParams({ passage })}` : ''}`}>
      {passage ? 'Open it at the passage' : 'Open it'}
    </Link>
  );
  if (!job.already || !job.before)
    return (
      <span>
        {job.step}. {open}
      </span>
    );
  const { keptAt, mine, title } = job.before;
  return (
    <span>
      You kept “{title}” on {day(keptAt)}
      {mine > 0 ? `; it bears ${count(mine, 'mark')} of yours` : ''}.{' '}
      <span className="inline-flex flex-wrap gap-x-4">
        {open}
        <button className="act" onClick={() => onAgain(job, { as: 'version' })}>
          Keep as a new version
        </button>
        <button className="act" onClick={() => onAgain(job, { as: 'apart' })}>
          Keep it apart
        </button>
      </span>
    </span>
  );
}

function Failed({ job, onAgain }: { job: Job; onAgain: (job: Job, how?: Again) => void }) {
  const field = useRef<HTMLInputElement>(null);
  const wantsPassword = job.error?.field === 'password';
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    onAgain(job, { password: field.current!.value });
  };
  return (
    <span>
      <span role="alert">
        <b className="text-brick">{job.error?.title ?? 'That failed'}.</b> {job.error?.detail ?? job.step}
      </span>{' '}
      {wantsPassword ? (
        <form onSubmit={submit} className="mt-1 flex items-baseline gap-3">
          <input
            ref={field}
            type="password"
            aria-label={`Password of ${job.label}`}
            autoComplete="off"
            className="field !w-[220px]"
          />
          <button className="act">Open it</button>
        </form>
      ) : (
        <button className="act" onClick={() => onAgain(job)}>
          Try again
        </button>
      )}
    </span>
  );
}
