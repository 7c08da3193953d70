import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { Change } from '@avrelle/core/anchor';
import { AppError, type ErrorCode, type ErrorValues } from '../errors';
import type { Follow, Followed } from '../versions/follow';
import { fetchFeed, type ParsedFeed, type ReadFeed } from './feed';
import type { Ingested, Progress } from './ingested';
import { fetchPage } from './ingest';
import type { Ask, Ingester } from './ingester';
import type { Got } from './got';
import type { NetworkPolicy } from './network-policy';
import { fetchParts, type PartAtHand } from './page-fetch';
import { recognise } from './recognise';

export type Task =
  | {
      readonly type: 'ingest';
      readonly ask: Ask;
      readonly got: Got | undefined;
      readonly parts: readonly PartAtHand[];
      readonly policy: NetworkPolicy;
      readonly dataFile: string;
    }
  | {
      readonly type: 'wanted';
      readonly ask: Ask;
      readonly got: Got | undefined;
      readonly known: readonly PartAtHand[];
      readonly dataFile: string;
    }
  | { readonly type: 'follow'; readonly asked: Follow }
  | { readonly type: 'feed'; readonly bytes: Uint8Array; readonly contentType: string; readonly address: string }
  | { readonly type: 'compare'; readonly before: string; readonly after: string }
  | { readonly type: 'store'; readonly file: string; readonly mediaType: string; readonly dataFile: string };

/** Errors of ours do not cross between threads as such. */
export type Outcome =
  | { readonly type: 'done'; readonly result: unknown }
  | {
      readonly type: 'refused';
      readonly code: ErrorCode;
      readonly values: ErrorValues;
      readonly field: string | undefined;
    };

/** Told by a thread while it works; the first says that it has begun. */
export interface Step {
  readonly step: string;
  readonly share: number;
}

function nameOf(ask: Ask): string {
  if (ask.type === 'address') return ask.address;
  return ask.type === 'file' ? ask.name : ask.ingested.meta.title;
}

export interface PoolOptions {
  /** After so long a task is given up, and its thread ended, in milliseconds. */
  readonly longest?: number;
  readonly threads?: number;
  /** Of one thread, in megabytes. */
  readonly memory?: number;
}

const LONGEST = 90_000;
const THREADS = 4;
const MEMORY = 1_024;

/**
 * Takes things in in a pool of threads, one task at a time each: a task that never ends, or takes more memory than it
 * may, ends with its own thread, and nobody else's. What is fetched is fetched before, outside of them.
 */
export class PoolIngester implements Ingester {
  private readonly pool: Piscina;
  private readonly longest: number;
  /** Of its own: what somebody uploads does not wait for what others keep. */
  private readonly files: Piscina;

  private readonly policy: NetworkPolicy;

  constructor(
    script: URL,
    { names, privateHosts }: NetworkPolicy,
    private readonly dataFile: string,
    { longest = LONGEST, threads = THREADS, memory = MEMORY }: PoolOptions = {},
  ) {
    this.longest = longest;
    // No more than this is sent to the threads.
    this.policy = { names, privateHosts };
    const common = {
      filename: script.href,
      minThreads: 0,
      idleTimeout: 60_000,
      concurrentTasksPerWorker: 1,
      atomics: 'disabled' as const,
    };
    this.pool = new Piscina({
      ...common,
      maxThreads: threads,
      resourceLimits: { maxOldGenerationSizeMb: memory, maxYoungGenerationSizeMb: 64 },
    });
    this.files = new Piscina({ ...common, maxThreads: 1 });
  }

  async run(ask: Ask, progress: Progress): Promise<Ingested> {
    const { dataFile, policy } = this;
    const name = nameOf(ask);
    const got = ask.type === 'address' ? await fetchPage(ask, policy, progress) : undefined;
    const asks = got ? (await recognise(got)).format === 'html' : ask.type === 'file' && ask.remote;
    if (asks) progress('Bringing pictures and styles along', 0.1);
    const parts = asks
      ? await fetchParts(policy, (known) => this.send({ type: 'wanted', ask, got, known, dataFile }, name))
      : [];
    return this.send({ type: 'ingest', ask, got, parts, policy, dataFile }, name, progress);
  }

  follow(asked: Follow): Promise<Followed> {
    return this.send({ type: 'follow', asked }, 'the new version');
  }

  compare(before: string, after: string): Promise<readonly Change[]> {
    return this.send({ type: 'compare', before, after }, 'the comparison');
  }

  feed(address: string): Promise<ReadFeed> {
    return fetchFeed(address, this.policy, (got) =>
      this.send<ParsedFeed>(
        { type: 'feed', bytes: got.bytes, contentType: got.contentType, address: got.address },
        address,
      ),
    );
  }

  store(file: string, mediaType: string): Promise<string> {
    return this.send({ type: 'store', file, mediaType, dataFile: this.dataFile }, 'the file', undefined, this.files);
  }

  async close(): Promise<void> {
    await Promise.all([this.pool.destroy(), this.files.destroy()]);
  }

  private async send<T>(task: Task, name: string, progress: Progress = () => undefined, pool = this.pool): Promise<T> {
    const { port1, port2 } = new MessageChannel();
    const stop = new AbortController();
    let timer: NodeJS.Timeout | undefined;
    // Its time begins with its work, not with its waiting for a thread.
    port1.on('message', ({ step, share }: Step) => {
      timer ??= setTimeout(() => stop.abort(), this.longest);
      if (step) progress(step, share);
    });
    port1.unref();
    try {
      const outcome = (await pool.run(
        { task, port: port2 },
        { transferList: [port2], signal: stop.signal },
      )) as Outcome;
      if (outcome.type === 'refused')
        throw new AppError(outcome.code, outcome.values, outcome.field ? { field: outcome.field } : {});
      return outcome.result as T;
    } catch (error) {
      if (error instanceof AppError) throw error;
      if (stop.signal.aborted) throw new AppError('too_slow', { address: name, seconds: this.longest / 1000 });
      if ((error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new AppError('too_heavy', { address: name });
      throw error;
    } finally {
      clearTimeout(timer);
      port1.close();
    }
  }
}
