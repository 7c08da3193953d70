import { useState, type FormEvent } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { Feed } from '@avrelle/core/wire';
import { v7 } from 'uuid';
import { wordsOf } from '../data/api';
import { call, hrefOf } from '../data/call';
import { renew, useFeeds } from '../data/queries';
import { Alert } from '../ui/Alert';
import { FileButton } from '../ui/FileButton';
import { useMessages } from '../ui/Messages';
import { when } from '../ui/when';
import { feedsIn } from './feeds-in';

/** Feeds one follows: what they bring waits to be kept or skipped. */
export function Feeds() {
  const client = useQueryClient();
  const messages = useMessages();
  const feeds = useFeeds().data ?? [];
  const [address, setAddress] = useState('');
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  const fresh = () => renew(client, 'arrivals');
  const follow = (event: FormEvent): void => {
    event.preventDefault();
    setBusy(true);
    call('POST /api/feeds', { body: { id: v7(), address } })
      .then(
        (feed) => {
          setAddress('');
          setWrong('');
          messages.tell(`Following “${feed.title}”.`);
          return fresh();
        },
        (error: unknown) => setWrong(wordsOf(error)),
      )
      .finally(() => setBusy(false));
  };
  /** One after the other: what cannot be followed is told, the rest is. */
  const bring = async (chosen: File): Promise<void> => {
    const addresses = feedsIn(await chosen.text());
    const failed: string[] = [];
    if (addresses.length === 0)
      return setWrong(`“${chosen.name}” names no feeds: an OPML file has outlines with an xmlUrl.`);
    setBusy(true);
    for (const each of addresses)
      await call('POST /api/feeds', { body: { id: v7(), address: each } }).catch((error: unknown) =>
        failed.push(`${each}: ${wordsOf(error)}`),
      );
    setBusy(false);
    setWrong(failed.join(' '));
    messages.tell(`${addresses.length - failed.length} of ${addresses.length} feeds followed.`);
    await fresh();
  };
  const warn = (error: unknown): void => messages.warn(wordsOf(error));
  const check = ({ id }: Feed): void => void call('POST /api/feeds/:id/check', { params: { id } }).then(fresh, warn);
  const leave = ({ id }: Feed): void => void call('DELETE /api/feeds/:id', { params: { id } }).then(fresh, warn);
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
      <form onSubmit={follow} noValidate className="mt-2 flex items-center gap-4">
        <input
          aria-label="Address of a site or feed"
          type="url"
          value={address}
          onChange={(e) => setAddress(e.target.value)}
          placeholder="Address of a site or its feed"
          className="field min-w-0 flex-1"
        />
        <button className="press" disabled={busy || !address.trim()}>
          Follow
        </button>
      </form>
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
