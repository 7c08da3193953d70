import { Worker } from 'node:worker_threads';
import { AppError, type ErrorCode, type ErrorValues } from '../errors';
import { ingest, type Ingested, type IngestInput, type Progress } from './ingest';
import type { NetworkPolicy } from './network-policy';

export interface WorkerRequest {
  readonly id: number;
  readonly input: IngestInput;
  readonly policy: NetworkPolicy;
}

export type WorkerReply =
  | { readonly id: number; readonly type: 'progress'; readonly step: string; readonly share: number }
  | { readonly id: number; readonly type: 'done'; readonly result: Ingested }
  | { readonly id: number; readonly type: 'refused'; readonly code: ErrorCode; readonly values: ErrorValues; readonly field: string | undefined }
  | { readonly id: number; readonly type: 'broken'; readonly message: string };

export interface Ingester {
  run(input: IngestInput, progress: Progress): Promise<Ingested>;
  close(): Promise<void>;
}

/** Ingests in the calling thread: for the command line and tests. */
export const directIngester = (policy: NetworkPolicy): Ingester => ({
  run: (input, progress) => ingest(input, policy, progress),
  close: () => Promise.resolve(),
});

/** After this long a page is given up and its thread ended, whatever it is doing. */
const LONGEST = 90_000;

interface Pending {
  readonly resolve: (result: Ingested) => void;
  readonly reject: (error: Error) => void;
  readonly progress: Progress;
  readonly timer: NodeJS.Timeout;
}

/** Ingests in one worker thread, so that parsing a large page never holds up anybody's reading. */
export class ThreadIngester implements Ingester {
  private worker: Worker | undefined;
  private readonly pending = new Map<number, Pending>();
  private lastId = 0;

  constructor(private readonly script: URL, private readonly policy: NetworkPolicy) {}

  run(input: IngestInput, progress: Progress): Promise<Ingested> {
    const id = ++this.lastId;
    const name = input.type === 'address' ? input.address : input.name;
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => this.giveUp(new AppError('too_slow', { address: name, seconds: LONGEST / 1000 })), LONGEST);
      this.pending.set(id, { resolve, reject, progress, timer });
      this.thread().postMessage({ id, input, policy: this.policy } satisfies WorkerRequest);
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
    if (reply.type === 'done') waiting.resolve(reply.result);
    else waiting.reject(reply.type === 'refused' ? new AppError(reply.code, reply.values, reply.field ? { field: reply.field } : {}) : new Error(reply.message));
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
