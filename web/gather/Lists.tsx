import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { addressesIn } from '@avrelle/core/gather';
import type { Batch, Job, JobState } from '@avrelle/core/wire';
import { v7 } from 'uuid';
import { useMe } from '../account/me';
import { wordsOf } from '../data/api';
import { begunAgain, mergedBatch } from '../data/jobs';
import { keys, renew, useLists } from '../data/queries';
import { useWrite } from '../data/use-write';
import { Alert } from '../ui/Alert';
import { FileButton } from '../ui/FileButton';
import { useKeeping } from '../ui/Form';
import { useKept } from '../ui/kept';
import { KeptBack } from '../ui/KeptBack';
import { useMessages } from '../ui/Messages';
import { count } from '../ui/when';

/** Many addresses at once: pasted or from a file; and what became of each. */
export function Lists() {
  const client = useQueryClient();
  const add = useWrite('POST /api/lists');
  const lists = useLists().data ?? [];
  const form = useForm({ defaultValues: { text: '' } });
  const { register, reset, handleSubmit, watch } = form;
  const kept = useKept<{ text: string }>(useMe().id, 'list');
  useKeeping(form, kept);
  const [wrong, setWrong] = useState('');
  const found = addressesIn(watch('text')).length;
  const start = (given: string, name: string): void => {
    add.send({ body: { id: v7(), text: given, name } }).then(
      (batch) => {
        reset();
        setWrong('');
        client.setQueryData<Batch[]>(keys.lists, (all) => [batch, ...(all ?? []).filter((b) => b.id !== batch.id)]);
        // Some of it may have ended before the answer came.
        void renew(client, 'arrivals');
      },
      (error: unknown) => setWrong(wordsOf(error)),
    );
  };
  const submit = handleSubmit(({ text }) => start(text, ''));
  return (
    <section aria-label="Lists of addresses" className="px-[30px] pb-8 pt-4 max-[900px]:px-4">
      <h2 className="text-[18px]">A list of addresses</h2>
      <form onSubmit={(event) => void submit(event)} className="mt-2 grid gap-2">
        <textarea
          {...register('text')}
          aria-label="Addresses, one a line"
          rows={4}
          placeholder="Paste addresses, one a line, or any text that holds some"
          className="field resize-y font-mono !text-[13.5px]"
        />
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
          <button className="press" disabled={found === 0}>
            {found === 0 ? 'Keep them all' : `Keep ${count(found, 'page')}`}
          </button>
          <span className="text-[14px] text-soft">
            or{' '}
            <FileButton
              label="File of addresses"
              accept=".txt,.csv,.html,.htm,.md"
              onChosen={([chosen]) => void chosen!.text().then((given) => start(given, chosen!.name))}
            >
              choose a file
            </FileButton>
            : text, CSV, or bookmarks of a browser
          </span>
        </div>
        <KeptBack form={form} kept={kept} />
        <Alert>{wrong}</Alert>
      </form>
      {lists.map((batch) => (
        <List key={batch.id} batch={batch} />
      ))}
      {lists.length === 0 && (
        <p className="mt-3 max-w-[60ch] text-[14px] text-soft">
          You can leave while a list is kept; it goes on by itself, two pages at a time and one a second from each site,
          and follows the rules that sites set for programs.
        </p>
      )}
    </section>
  );
}

const ended = (job: Job): boolean => job.state === 'done' || job.state === 'failed';

const SIGNS: Readonly<Record<JobState, string>> = { done: '✓', failed: '×', running: '›', queued: '' };

/** What can be done with a list that was begun. */
function useBatch(batch: Batch) {
  const client = useQueryClient();
  const messages = useMessages();
  const patch = useWrite('PATCH /api/lists/:id');
  const retry = useWrite('POST /api/lists/:id/again');
  const drop = useWrite('DELETE /api/lists/:id');
  const params = { id: batch.id };
  const show = (change: (lists: readonly Batch[]) => readonly Batch[]): void =>
    void client.setQueryData<readonly Batch[]>(keys.lists, (lists) => lists && change(lists));
  const warn = (error: unknown): void => {
    messages.warn(wordsOf(error));
    void renew(client, 'arrivals');
  };
  const showFresh = (fresh: Batch): void =>
    show((lists) => lists.map((b) => (b.id === fresh.id ? mergedBatch(b, fresh) : b)));
  return {
    pause: (paused: boolean): void => void patch.send({ params, body: { paused } }).then(showFresh, warn),
    again: (): void => {
      const tried = batch.jobs.map((j) => (j.state === 'failed' ? begunAgain(j) : j));
      show((lists) => lists.map((b) => (b.id === batch.id ? { ...b, jobs: tried } : b)));
      void retry.send({ params }).then(showFresh, warn);
    },
    remove: (): void =>
      void drop.send({ params }).then(() => show((lists) => lists.filter((b) => b.id !== batch.id)), warn),
  };
}

function List({ batch }: { batch: Batch }) {
  const { pause, again, remove } = useBatch(batch);
  const done = batch.jobs.filter(ended).length;
  const failed = batch.jobs.filter((j) => j.state === 'failed').length;
  const all = batch.jobs.length;
  const running = done < all;
  return (
    <section aria-label={`List ${batch.label}`} className="mt-6 border-t border-strong pt-2 text-[14px]">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <h3 className="text-[16px]">{batch.label}</h3>
        <span aria-live="polite" className="text-soft">
          {done} of {all} ended{failed > 0 ? `, ${failed} failed` : ''}
          {batch.paused && running ? ', paused' : ''}
        </span>
        <span className="ml-auto flex gap-4">
          {running && (
            <button className="act" onClick={() => pause(!batch.paused)}>
              {batch.paused ? 'Go on' : 'Pause'}
            </button>
          )}
          {failed > 0 && (
            <button className="act" onClick={again}>
              Try the failed again
            </button>
          )}
          <button className="text-soft hover:text-ink" onClick={remove} title="What was kept stays">
            Delete the list
          </button>
        </span>
      </div>
      <progress
        className="my-1.5 h-1 w-full accent-[var(--tide)]"
        value={done}
        max={all}
        aria-label={`Progress of ${batch.label}`}
      />
      <ol className="max-h-[46vh] overflow-y-auto">
        {batch.jobs.map((job) => (
          <Entry key={job.id} job={job} />
        ))}
      </ol>
    </section>
  );
}

/** One address of a list, and what became of it. */
function Entry({ job }: { readonly job: Job }) {
  return (
    <li className="grid grid-cols-[18px_1fr] border-t border-rule py-1">
      <span aria-hidden="true" className={job.state === 'failed' ? 'text-brick' : 'text-tide'}>
        {SIGNS[job.state]}
      </span>
      <span className="min-w-0">
        <span className="block truncate" title={job.label}>
          {job.sourceId ? (
            <Link to={`/source/${job.sourceId}`} className="act !font-normal">
              {job.label}
            </Link>
          ) : (
            job.label
          )}
        </span>
        {job.state === 'failed' ? (
          <span className="text-brick">
            {job.error?.title}. <span className="text-soft">{job.error?.detail}</span>
          </span>
        ) : (
          <span className="text-faint">{job.step}</span>
        )}
      </span>
    </li>
  );
}
