import { useQueryClient } from '@tanstack/react-query';
import type { Arrival, Job } from '@avrelle/core/wire';
import { v7 } from 'uuid';
import { wordsOf } from '../data/api';
import { withJob } from '../data/jobs';
import { keys, renew, useArrivals } from '../data/queries';
import { useWrite } from '../data/use-write';
import { useMessages } from '../ui/Messages';
import { count, day } from '../ui/when';

/** What feeds brought: each is kept or skipped, and skipping can be undone. */
export function Arrivals() {
  const client = useQueryClient();
  const messages = useMessages();
  const arrivals = useArrivals().data ?? [];
  const without = (gone: readonly Arrival[]): void => {
    client.setQueryData<Arrival[]>(keys.arrivals, (all) => all?.filter((a) => !gone.some((g) => g.id === a.id)));
  };
  const accepting = useWrite('POST /api/arrivals/accept');
  const skipping = useWrite('POST /api/arrivals/skip');
  const restoring = useWrite('POST /api/arrivals/restore', 'arrivals');
  const warn = (error: unknown): void => {
    messages.warn(wordsOf(error));
    void renew(client, 'arrivals');
  };
  const idsOf = (items: readonly Arrival[]) => items.map((i) => i.id);
  const keep = (items: readonly Arrival[]): void => {
    without(items);
    const body = { ids: idsOf(items), jobIds: items.map(() => v7()) };
    void accepting.send({ body }).then((jobs) => {
      client.setQueryData<Job[]>(keys.jobs, (all) => jobs.reduce(withJob, all ?? []));
      messages.tell(`${count(jobs.length, 'page is', 'pages are')} being kept.`);
    }, warn);
  };
  const skip = (items: readonly Arrival[]): void => {
    without(items);
    const body = { ids: idsOf(items) };
    const undo = (): void => restoring.run({ body });
    void skipping
      .send({ body })
      .then(() => messages.tell(`${count(items.length, 'page')} skipped.`, { label: 'Undo', run: undo }), warn);
  };
  if (arrivals.length === 0) return null;
  return (
    <section aria-label="New arrivals" className="border-b border-strong">
      <div className="flex items-baseline gap-5 px-[30px] pb-2 pt-4 max-[900px]:px-4">
        <h2 className="text-[18px]">New</h2>
        <span className="ml-auto flex gap-4 text-[14px]">
          <button className="act" onClick={() => keep(arrivals)}>
            Keep all
          </button>
          <button className="act" onClick={() => skip(arrivals)}>
            Skip all
          </button>
        </span>
      </div>
      <ol>
        {arrivals.map((item) => (
          <Item key={item.id} item={item} onKeep={() => keep([item])} onSkip={() => skip([item])} />
        ))}
      </ol>
    </section>
  );
}

interface ItemProps {
  readonly item: Arrival;
  onKeep(): void;
  onSkip(): void;
}

function Item({ item, onKeep, onSkip }: ItemProps) {
  return (
    <li className="grid grid-cols-[1fr_auto] gap-x-5 border-t border-rule px-[30px] py-2.5 hover:bg-wash max-[900px]:px-4">
      <div className="min-w-0">
        <h3 className="text-[16px] leading-[22px]">
          <a href={item.address} target="_blank" rel="noopener noreferrer">
            {item.title}
          </a>
        </h3>
        <p className="text-[13.5px] text-soft">
          {[item.author, item.feed, item.publishedAt && day(item.publishedAt)].filter(Boolean).join(' · ')}
        </p>
        {item.summary && (
          <p className="mt-0.5 line-clamp-2 max-w-[72ch] font-read text-[15px] leading-[21px] text-soft">
            {item.summary}
          </p>
        )}
      </div>
      <div className="flex items-start gap-4 pt-0.5">
        <button className="act" aria-label={`Keep ${item.title}`} onClick={onKeep}>
          Keep
        </button>
        <button className="text-soft hover:text-ink" aria-label={`Skip ${item.title}`} onClick={onSkip}>
          Skip
        </button>
      </div>
    </li>
  );
}
