import { useRef, type FormEvent } from 'react';
import { Link } from 'react-router';
import type { Job } from '@avrelle/core/wire';
import { count, day } from '../ui/when';

/** With the password a file wants; or as a version of what was kept before, or apart from it. */
export interface Again {
  readonly password?: string;
  readonly as?: 'version' | 'apart';
}

interface Props {
  readonly job: Job;
  /** Words to open it at. */
  readonly passage: string | undefined;
  onAgain(job: Job, how?: Again): void;
}

/** What came of keeping something, with the way on. */
export default function JobEnd(props: Props) {
  return props.job.state === 'failed' ? <Failed {...props} /> : <Done {...props} />;
}

function Done({ job, passage, onAgain }: Props) {
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

function Failed({ job, onAgain }: Props) {
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
