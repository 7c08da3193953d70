import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { useQueryClient } from '@tanstack/react-query';
import type { Feed } from '@avrelle/core/wire';
import { v7 } from 'uuid';
import { wordsOf } from '../data/api';
import { hrefOf } from '../data/call';
import { renew, useFeeds } from '../data/queries';
import { useWrite } from '../data/use-write';
import { Alert } from '../ui/Alert';
import { FileButton } from '../ui/FileButton';
import { useMessages } from '../ui/Messages';
import { when } from '../ui/when';
import { feedsIn } from './feeds-in';

/** What can be done with feeds; what went wrong with the last of it. */
function useFollowing() {
  const client = useQueryClient();
  const add = useWrite('POST /api/feeds');
  const check = useWrite('POST /api/feeds/:id/check', 'arrivals');
  const leave = useWrite('DELETE /api/feeds/:id', 'arrivals');
  const messages = useMessages();
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  /** True where it is followed now. */
  const follow = async (address: string): Promise<boolean> => {
    setBusy(true);
    try {
      const feed = await add.send({ body: { id: v7(), address } });
      setWrong('');
      messages.tell(`Following “${feed.title}”.`);
      await renew(client, 'arrivals');
      return true;
    } catch (error) {
      setWrong(wordsOf(error));
      return false;
    } finally {
      setBusy(false);
    }
  };
  /** One after the other: what cannot be followed is told, the rest is. */
  const bring = async (chosen: File): Promise<void> => {
    const addresses = feedsIn(await chosen.text());
    const failed: string[] = [];
    if (addresses.length === 0)
      return setWrong(`“${chosen.name}” names no feeds: an OPML file has outlines with an xmlUrl.`);
    setBusy(true);
    for (const each of addresses)
      await add
        .send({ body: { id: v7(), address: each } })
        .catch((error: unknown) => failed.push(`${each}: ${wordsOf(error)}`));
    setBusy(false);
    setWrong(failed.join(' '));
    messages.tell(`${addresses.length - failed.length} of ${addresses.length} feeds followed.`);
    await renew(client, 'arrivals');
  };
  return {
    ...{ wrong, busy, follow, bring },
    check: ({ id }: Feed): void => check.run({ params: { id } }),
    leave: ({ id }: Feed): void => leave.run({ params: { id } }),
  };
}

/** Feeds one follows: what they bring waits to be kept or skipped. */
export function Feeds() {
  const feeds = useFeeds().data ?? [];
  const { wrong, busy, follow, bring, check, leave } = useFollowing();
  return (
    <section aria-label="Feeds" className="border-b border-rule px-6 pb-6 pt-4 max-[900px]:px-4">
      <div className="flex items-baseline gap-4">
        <h2 className="mr-auto text-[18px]">Feeds</h2>
        {feeds.length > 0 && (
          <a className="act text-[13px]" href={hrefOf('GET /api/feeds.opml')} download>
            Export (OPML)
          </a>
        )}
        <FileButton
          label="OPML file"
          accept=".opml,.xml,text/x-opml"
          className="act text-[13px]"
          onChosen={([chosen]) => void bring(chosen!)}
        >
          Import (OPML)
        </FileButton>
      </div>
      <FollowForm busy={busy} onFollow={follow} />
      <div className="mt-2">
        <Alert>{wrong}</Alert>
      </div>
      <ul className="mt-1 text-[14px]">
        {feeds.map((feed) => (
          <Followed key={feed.id} feed={feed} onCheck={() => check(feed)} onLeave={() => leave(feed)} />
        ))}
      </ul>
      {feeds.length === 0 && (
        <p className="text-[14px] text-soft">
          Follow a site, and what it brings out waits here to be kept or skipped. It is looked at about once an hour.
        </p>
      )}
    </section>
  );
}

interface FollowFormProps {
  readonly busy: boolean;
  onFollow(address: string): Promise<boolean>;
}

/** The address stays where it could not be followed. */
function FollowForm({ busy, onFollow }: FollowFormProps) {
  const { register, reset, handleSubmit, watch } = useForm({ defaultValues: { address: '' } });
  const submit = handleSubmit(async ({ address }) => {
    if (await onFollow(address)) reset();
  });
  return (
    <form onSubmit={(event) => void submit(event)} noValidate className="mt-2 flex items-center gap-4">
      <input
        {...register('address')}
        aria-label="Address of a site or feed"
        type="url"
        placeholder="Address of a site or its feed"
        className="field min-w-0 flex-1"
      />
      <button className="press" disabled={busy || !watch('address').trim()}>
        Follow
      </button>
    </form>
  );
}

interface FollowedProps {
  readonly feed: Feed;
  onCheck(): void;
  onLeave(): void;
}

function Followed({ feed, onCheck, onLeave }: FollowedProps) {
  return (
    <li className="border-t border-rule py-2 first:border-t-0">
      <b className="font-read text-[15.5px] font-semibold">{feed.title}</b>
      <p className="text-soft">
        {feed.site} · {feed.waiting === 0 ? 'nothing new' : `${feed.waiting} new`} · looked at {when(feed.checkedAt)}
      </p>
      {feed.error && <p className="text-brick">{feed.error}</p>}
      <p className="flex gap-4">
        <button className="act" onClick={onCheck}>
          Look now
        </button>
        <button className="text-soft hover:text-ink" onClick={onLeave}>
          Stop following
        </button>
      </p>
    </li>
  );
}
