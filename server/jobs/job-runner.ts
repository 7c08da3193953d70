import type { Clock } from '../context';
import type { Db } from '../db/database';
import { readBlob } from '../db/blobs';
import { AppError, toProblem } from '../errors';
import type { EventLog } from '../events/event-log';
import type { IngestInput } from '../ingest/ingest';
import type { Ingester } from '../ingest/thread-ingester';
import { storeSource } from '../sources/store';
import { finishJob, nextJob, requeueRunning, setProgress, type StoredJob } from './queries';

const AT_ONCE = 2;

interface World {
  readonly db: Db;
  readonly now: Clock;
  readonly newId: () => string;
  readonly events: EventLog;
  readonly ingester: Ingester;
  readonly log: (message: string) => void;
}

/** Works through the job table, two at a time, oldest first. What a crash interrupted is begun again at start. */
export class JobRunner {
  private running = 0;
  private stopped = false;

  constructor(private readonly world: World) {}

  start(): void {
    requeueRunning(this.world.db);
    this.kick();
  }

  /** Call after a job was inserted. */
  kick(): void {
    while (!this.stopped && this.running < AT_ONCE) {
      const job = nextJob(this.world.db);
      if (!job) return;
      this.tell(job, 'Starting', 0.01);
      this.running++;
      void this.work(job).finally(() => {
        this.running--;
        this.kick();
      });
    }
  }

  async stop(): Promise<void> {
    this.stopped = true;
    await this.world.ingester.close();
  }

  private async work(job: StoredJob): Promise<void> {
    const { db, ingester, now, events } = this.world;
    try {
      const ingested = await ingester.run(this.inputOf(job), (step, share) => this.tell(job, step, share));
      if (this.stopped) return;
      db.transaction(() => {
        const { sourceId, already } = storeSource(this.world, { id: job.input.sourceId, ownerId: job.personId, tags: job.input.tags, ingested });
        finishJob(db, job.id, { state: 'done', step: already ? 'You had kept this before' : 'Kept', sourceId, already, error: null }, now());
        events.append({ type: 'job', personId: job.personId, jobId: job.id });
      });
    } catch (error) {
      if (!this.stopped) this.fail(job, error);
    }
  }

  private inputOf({ input, uploadHash }: StoredJob): IngestInput {
    if (!uploadHash) return { type: 'address', address: input.address ?? '' };
    return { type: 'file', name: input.fileName ?? 'file', bytes: readBlob(this.world.db, uploadHash)!.bytes };
  }

  private fail(job: StoredJob, error: unknown): void {
    const { db, now, events, log } = this.world;
    const known = error instanceof AppError ? error : new AppError('broken', { reference: job.id.slice(-8) });
    if (known !== error) log(`job ${job.id}: ${(error as Error)?.stack ?? String(error)}`);
    db.transaction(() => {
      finishJob(db, job.id, { state: 'failed', step: known.message, sourceId: null, already: false, error: toProblem(known) }, now());
      events.append({ type: 'job', personId: job.personId, jobId: job.id });
    });
  }

  private tell(job: StoredJob, step: string, share: number): void {
    if (this.stopped) return;
    this.world.db.transaction(() => {
      setProgress(this.world.db, job.id, step, share);
      this.world.events.append({ type: 'job', personId: job.personId, jobId: job.id });
    });
  }
}
