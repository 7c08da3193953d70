import fs from 'node:fs/promises';
import { compare, indexText, type Change } from '@avrelle/core/anchor';
import { readBlob, storeBlob } from '../db/blobs';
import type { Db } from '../db/database';
import { follow, type Follow, type Followed } from '../versions/follow';
import type { ReadFeed } from './feed';
import type { Ingested, Progress } from './ingested';
import type { NetworkPolicy } from './network-policy';
import { resolveInput, type Ask } from './stored-input';

export type { Ask } from './stored-input';

export interface Ingester {
  run(ask: Ask, progress: Progress): Promise<Ingested>;
  /** Annotations and what was read, followed from one version to the next. */
  follow(asked: Follow): Promise<Followed>;
  compare(before: string, after: string): Promise<readonly Change[]>;
  /** What a feed offers, by its address or that of a page that names one. */
  feed(address: string): Promise<ReadFeed>;
  /** Stores a file that lies on the disk, and gives its hash. The caller refers to it soon. */
  store(file: string, mediaType: string): Promise<string>;
  close(): Promise<void>;
}

/**
 * Ingests in the calling thread: for the command line and tests. Files are read from `db`. What reads files of every
 * kind is loaded with the first of them.
 */
export const directIngester = (policy: NetworkPolicy, db?: Db): Ingester => ({
  run: async (ask, progress) => {
    const { fetchPage, ingest } = await import('./ingest');
    if (ask.type === 'address')
      return ingest({ ...ask, got: await fetchPage(ask, policy, progress) }, policy, progress);
    return ingest(
      resolveInput(ask, (hash) => readBlob(db!, hash)!.bytes),
      policy,
      progress,
    );
  },
  follow: (asked) => Promise.resolve(follow(asked)),
  compare: (before, after) => Promise.resolve(compare(indexText(before), indexText(after))),
  feed: async (address) => {
    const { fetchFeed, parseFeedOrPage } = await import('./feed');
    return fetchFeed(address, policy, parseFeedOrPage);
  },
  store: async (file, mediaType) => {
    const bytes = await fs.readFile(file);
    return db!.transaction(() => storeBlob(db!, bytes, mediaType));
  },
  close: () => Promise.resolve(),
});
