import type { Clock } from '../context';
import type { Db } from '../db/database';
import { readBlob } from '../db/blobs';
import { AppError, toProblem } from '../errors';
import type { EventLog } from '../events/event-log';
import type { Ingested, IngestInput } from '../ingest/ingest';
import type { Ingester } from '../ingest/thread-ingester';
import { storeSource } from '../sources/store';
import { prepareVersion, storeVersion } from '../versions/store';
import { finishJob, nextJob, requeueRunning, setProgress, type StoredJob } from './queries';

const AT_ONCE = 2;

interface Outcome {
  readonly step: string;
  readonly sourceId: string;
  readonly already: boolean;
}

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
      const store = job.input.again ? await this.again(job, ingested) : () => this.first(job, ingested);
      if (this.stopped) return;
      db.transaction(() => {
        finishJob(db, job.id, { state: 'done', error: null, ...store() }, now());
        events.append({ type: 'job', personId: job.personId, jobId: job.id });
      });
    } catch (error) {
      if (!this.stopped) this.fail(job, error);
    }
  }

  private first(job: StoredJob, ingested: Ingested): Outcome {
    const { sourceId, already } = storeSource(this.world, { id: job.input.sourceId, ownerId: job.personId, tags: job.input.tags, ingested });
    return { step: already ? 'You had kept this before' : 'Kept', sourceId, already };
  }

  /** A new version: annotations are followed to it in the worker, then everything is stored at once. */
  private async again({ id, personId, input: { sourceId } }: StoredJob, ingested: Ingested): Promise<() => Outcome> {
    const prepared = prepareVersion(this.world, sourceId, ingested);
    if (!prepared.changed) return () => ({ step: 'Nothing has changed since the version you have', sourceId, already: true });
    this.tell({ id, personId }, `Finding ${prepared.follow.marks.length} annotations again`, 0.9);
    const followed = await this.world.ingester.follow(prepared.follow);
    return () => {
      storeVersion(this.world, sourceId, ingested, prepared, followed);
      return { step: `Kept as version ${prepared.newest.number + 1}`, sourceId, already: false };
    };
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

  private tell(job: Pick<StoredJob, 'id' | 'personId'>, step: string, share: number): void {
    if (this.stopped) return;
    this.world.db.transaction(() => {
      setProgress(this.world.db, job.id, step, share);
      this.world.events.append({ type: 'job', personId: job.personId, jobId: job.id });
    });
  }
}
