import { useRef, useState, type FormEvent } from 'react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { formatTextDirective, readAddress } from '@avrelle/core/anchor';
import { v7 } from 'uuid';
import type { Job } from '@avrelle/core/wire';
import { request, wordsOf } from '../data/api';
import { withJob } from '../data/jobs';
import { keys, useJobs } from '../data/queries';
import { Alert } from '../ui/Alert';

/** Keeping a page by its address, or a file; below, what is under way and what failed, with the reason. */
export function KeepBar() {
  const client = useQueryClient();
  const [address, setAddress] = useState('');
  const [wrong, setWrong] = useState('');
  const file = useRef<HTMLInputElement>(null);
  const started = (job: Job): void => {
    setWrong('');
    setAddress('');
    client.setQueryData<Job[]>(keys.jobs, (jobs) => withJob(jobs ?? [], job));
  };
  /** Passages that pasted addresses named, by job: what was kept opens there. */
  const [passages, setPassages] = useState<ReadonlyMap<string, string>>(new Map());
  const keep = useMutation({ mutationFn: (given: string) => {
    const id = v7(), { address: page, directives } = readAddress(given);
    if (directives[0]) setPassages((before) => new Map(before).set(id, formatTextDirective(directives[0]!)));
    return request<Job>('POST', '/api/keep', { id, address: page });
  }, onSuccess: started, onError: (e) => setWrong(wordsOf(e)) });
  const upload = useMutation({ mutationFn: (given: File) => { const form = new FormData(); form.append('file', given); return request<Job>('POST', `/api/uploads/${v7()}`, form); }, onSuccess: started, onError: (e) => setWrong(wordsOf(e)) });
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    keep.mutate(address);
  };
  return (
    <section aria-label="Keep a source" className="border-b border-rule bg-paper px-[30px] py-3 max-[900px]:px-4" onDragOver={(e) => e.preventDefault()} onDrop={(e) => { e.preventDefault(); for (const dropped of e.dataTransfer.files) upload.mutate(dropped); }}>
      <form onSubmit={submit} noValidate className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <input aria-label="Address of a page" value={address} onChange={(e) => setAddress(e.target.value)} placeholder="Paste the address of a page to keep it" type="url" className="field min-w-[180px] flex-1" />
        <button className="press" disabled={keep.isPending || !address.trim()}>Keep</button>
        <span className="text-[14px] text-soft">or <button type="button" className="act" onClick={() => file.current?.click()}>choose a file</button> (HTML, Markdown, plain text)</span>
        <input ref={file} type="file" multiple hidden aria-label="File to keep" accept=".html,.htm,.xhtml,.md,.markdown,.txt,text/html,text/markdown,text/plain" onChange={(e) => { for (const chosen of e.target.files ?? []) upload.mutate(chosen); e.target.value = ''; }} />
      </form>
      {wrong && <div className="mt-2"><Alert>{wrong}</Alert></div>}
      <Jobs passages={passages} />
    </section>
  );
}

function Jobs({ passages }: { passages: ReadonlyMap<string, string> }) {
  const client = useQueryClient();
  const jobs = useJobs().data ?? [];
  const dismiss = (job: Job): void => {
    client.setQueryData<Job[]>(keys.jobs, (all) => all?.filter((j) => j.id !== job.id));
    void request('DELETE', `/api/jobs/${job.id}`).catch(() => undefined);
  };
  if (jobs.length === 0) return null;
  return (
    <ul aria-label="Being kept" className="mt-2 grid gap-1.5 text-[14px]">
      {jobs.slice(0, 6).map((job) => (
        <li key={job.id} className={`grid grid-cols-[1fr_auto] items-baseline gap-x-4 border-l-[3px] py-0.5 pl-3 ${job.state === 'failed' ? 'border-brick' : 'border-tide'}`}>
          <span className="min-w-0">
            <span className="block truncate text-soft" title={job.label}>{job.label}</span>
            {job.state === 'failed' && job.error ? <span role="alert"><b className="text-brick">{job.error.title}.</b> {job.error.detail}</span>
              : job.state === 'done' ? <span>{job.step}. {job.sourceId && <Link className="act" to={`/source/${job.sourceId}${passages.has(job.id) ? `?${new URLSearchParams({ passage: passages.get(job.id)! })}` : ''}`}>{passages.has(job.id) ? 'Open it at the passage' : 'Open it'}</Link>}</span>
              : <span className="flex items-center gap-3 text-soft">{job.step}… <progress className="h-1 w-40 accent-[var(--tide)]" value={job.progress} max={1} aria-label={`Keeping ${job.label}`} /></span>}
          </span>
          <span className="flex gap-4">
            {(job.state === 'failed' || job.state === 'done') && <button aria-label={`Dismiss ${job.label}`} className="text-faint hover:text-ink" onClick={() => dismiss(job)}>×</button>}
          </span>
        </li>
      ))}
    </ul>
  );
}
