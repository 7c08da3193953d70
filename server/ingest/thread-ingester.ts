import { Worker } from 'node:worker_threads';
import { compare, indexText, type Change } from '@avrelle/core/anchor';
import { AppError, type ErrorCode, type ErrorValues } from '../errors';
import { ingest, type Ingested, type IngestInput, type Progress } from './ingest';
import { follow, type Follow, type Followed } from '../versions/follow';
import type { NetworkPolicy } from './network-policy';
import { readFeed, type ReadFeed } from './feed';

export type Task =
  | { readonly type: 'ingest'; readonly input: IngestInput; readonly policy: NetworkPolicy }
  | { readonly type: 'follow'; readonly asked: Follow }
  | { readonly type: 'feed'; readonly address: string; readonly policy: NetworkPolicy }
  | { readonly type: 'compare'; readonly before: string; readonly after: string }
  /** Answered at once by a thread that is not stuck. */
  | { readonly type: 'ping' };

export type WorkerRequest = Task & { readonly id: number };

export type WorkerReply =
  | { readonly id: number; readonly type: 'progress'; readonly step: string; readonly share: number }
  | { readonly id: number; readonly type: 'done'; readonly result: unknown }
  | { readonly id: number; readonly type: 'refused'; readonly code: ErrorCode; readonly values: ErrorValues; readonly field: string | undefined }
  | { readonly id: number; readonly type: 'broken'; readonly message: string };

const nameOfInput = (input: IngestInput): string => (input.type === 'address' ? input.address : input.type === 'file' ? input.name : input.ingested.meta.title);

export interface Ingester {
  run(input: IngestInput, progress: Progress): Promise<Ingested>;
  /** Annotations and what was read, followed from one version to the next. */
  follow(asked: Follow): Promise<Followed>;
  compare(before: string, after: string): Promise<readonly Change[]>;
  /** What a feed offers, by its address or that of a page that names one. */
  feed(address: string): Promise<ReadFeed>;
  close(): Promise<void>;
}

/** Ingests in the calling thread: for the command line and tests. */
export const directIngester = (policy: NetworkPolicy): Ingester => ({
  run: (input, progress) => ingest(input, policy, progress),
  follow: (asked) => Promise.resolve(follow(asked)),
  compare: (before, after) => Promise.resolve(compare(indexText(before), indexText(after))),
  feed: (address) => readFeed(address, policy),
  close: () => Promise.resolve(),
});

/** After this long a task is given up; a thread that then does not answer for a while is stuck, and is ended with all it was doing. */
const LONGEST = 90_000, STUCK = 5_000;

interface Pending {
  readonly resolve: (result: never) => void;
  readonly reject: (error: Error) => void;
  readonly progress: Progress;
  readonly timer: NodeJS.Timeout;
}

/** Ingests in one worker thread, so that parsing a large page never holds up anybody's reading. */
export class ThreadIngester implements Ingester {
  private worker: Worker | undefined;
  private readonly pending = new Map<number, Pending>();
  private lastId = 0;

  constructor(private readonly script: URL, private readonly policy: NetworkPolicy, private readonly longest = LONGEST, private readonly stuck = STUCK) {}

  run(input: IngestInput, progress: Progress): Promise<Ingested> {
    return this.send({ type: 'ingest', input, policy: this.policy }, nameOfInput(input), progress);
  }

  follow(asked: Follow): Promise<Followed> {
    return this.send({ type: 'follow', asked }, 'the new version');
  }

  compare(before: string, after: string): Promise<readonly Change[]> {
    return this.send({ type: 'compare', before, after }, 'the comparison');
  }

  feed(address: string): Promise<ReadFeed> {
    return this.send({ type: 'feed', address, policy: this.policy }, address);
  }

  private send<T>(task: Task, name: string, progress: Progress = () => undefined): Promise<T> {
    const id = ++this.lastId;
    return new Promise<T>((resolve, reject) => {
      const timer = setTimeout(() => this.overdue(id, new AppError('too_slow', { address: name, seconds: this.longest / 1000 })), this.longest);
      this.pending.set(id, { resolve, reject, progress, timer });
      this.thread().postMessage({ ...task, id } satisfies WorkerRequest);
    });
  }

  async close(): Promise<void> {
    await this.worker?.terminate();
  }

  private thread(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(this.script, { resourceLimits: { maxOldGenerationSizeMb: 1024 } });
    worker.on('message', (reply: WorkerReply) => this.receive(reply));
    worker.on('error', (error) => this.giveUp(new AppError('unreadable', { address: 'the page', reason: error.message })));
    worker.unref();
    this.worker = worker;
    return worker;
  }

  private receive(reply: WorkerReply): void {
    const waiting = this.pending.get(reply.id);
    if (!waiting) return;
    if (reply.type === 'progress') return waiting.progress(reply.step, reply.share);
    this.pending.delete(reply.id);
    clearTimeout(waiting.timer);
    if (reply.type === 'done') waiting.resolve(reply.result as never);
    else waiting.reject(reply.type === 'refused' ? new AppError(reply.code, reply.values, reply.field ? { field: reply.field } : {}) : new Error(reply.message));
  }

  /** One task takes too long: what others wait for goes on, as long as the thread still answers. */
  private overdue(id: number, error: Error): void {
    const ping = ++this.lastId, timer = setTimeout(() => this.giveUp(error), this.stuck);
    const answered = (): void => {
      this.pending.get(id)?.reject(error);
      this.pending.delete(id);
    };
    this.pending.set(ping, { resolve: answered, reject: () => undefined, progress: () => undefined, timer });
    this.thread().postMessage({ type: 'ping', id: ping } satisfies WorkerRequest);
  }

  /** The thread is beyond help: everything it was doing fails, the next request starts a new one. */
  private giveUp(error: Error): void {
    void this.worker?.terminate();
    this.worker = undefined;
    for (const { reject, timer } of this.pending.values()) {
      clearTimeout(timer);
      reject(error);
    }
    this.pending.clear();
  }
}
