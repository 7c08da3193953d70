import type { JobId, PersonId, SourceId } from '@avrelle/core/wire';
import type { Clock } from '../clock';
import type { Db } from '../db/database';
import { loadDraft, removeDraft, storeDraft } from '../drafts/queries';
import { AppError, toProblem } from '../errors';
import { removeLeftChunks } from '../db/unused';
import type { EventLog } from '../events/event-log';
import type { Ingested } from '../ingest/ingested';
import type { Ask, Ingester } from '../ingest/ingester';
import type { JobInput, JobTarget } from './job-input';
import { storeSource } from '../sources/store';
import { prepareVersion, storeVersion } from '../versions/store';
import {
  finishJob,
  listedRunning,
  nextListed,
  nextSingle,
  requeueRunning,
  setProgress,
  type StoredJob,
} from './queries';

/** Jobs under way, how many of them may be of one person, and how many of lists: nobody waits behind somebody else's slow pages, nor for a long list. */
const AT_ONCE = 8;
const AT_ONCE_OF_ONE = 3;
const LISTED_AT_ONCE = 2;
/** Between two pages of one site for a list, in milliseconds (common practice: a second is polite). */
const SITE_PAUSE = 1_000;

interface Outcome {
  readonly step: string;
  readonly sourceId: SourceId | null;
  readonly already: boolean;
}

interface World {
  readonly db: Db;
  readonly now: Clock;
  readonly newId: () => string;
  readonly events: EventLog;
  readonly ingester: Ingester;
  readonly log: (message: string) => void;
  /** Between two pages of one site for a list; a second where nothing is said. */
  readonly sitePause?: number;
}

/** Works through the job table, a few at a time: single jobs oldest first, lists in turn. What a crash interrupted is begun again at start. */
export class JobRunner {
  private running = 0;
  private stopped = false;
  /** When each site was last asked for a list. */
  private readonly asked = new Map<string, number>();
  private timer: NodeJS.Timeout | undefined;
  /** Passwords of files, for as long as their jobs wait; never written down with a job. */
  private readonly passwords = new Map<string, string>();

  constructor(private readonly world: World) {}

  start(): void {
    removeLeftChunks(this.world.db);
    requeueRunning(this.world.db);
    this.kick();
  }

  /** Call after a job was inserted, with the password its file wants. */
  kick(jobId?: JobId, password?: string): void {
    if (jobId !== undefined && password !== undefined) this.passwords.set(jobId, password);
    while (!this.stopped && this.running < AT_ONCE) {
      const job = nextSingle(this.world.db, AT_ONCE_OF_ONE) ?? this.listed();
      if (!job) return;
      this.tell(job, 'Starting', 0.01);
      this.running++;
      void this.work(job).finally(() => {
        this.running--;
        if (job.batchId) this.asked.set(job.host, Date.now());
        this.kick();
      });
    }
  }

  async stop(): Promise<void> {
    this.stopped = true;
    clearTimeout(this.timer);
    await this.world.ingester.close();
  }

  /** The next job of a list whose site has had its pause; where all sites want theirs, looks again after it. */
  private listed(): StoredJob | undefined {
    if (listedRunning(this.world.db) >= LISTED_AT_ONCE) return undefined;
    const pause = this.world.sitePause ?? SITE_PAUSE;
    const now = Date.now();
    const rest = (host: string): number => (this.asked.get(host) ?? 0) + pause - now;
    const waiting = nextListed(this.world.db);
    const ready = waiting.find((job) => rest(job.host) <= 0);
    if (ready || waiting.length === 0) return ready;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.kick(), Math.max(10, Math.min(...waiting.map((job) => rest(job.host)))));
    return undefined;
  }

  private async work(job: StoredJob): Promise<void> {
    const { db, ingester, now, events } = this.world;
    try {
      const ingested = await ingester.run(this.asking(job), (step, share) => this.tell(job, step, share));
      if (this.stopped) return;
      const store = await this.storing(job, corrected(ingested, job.input.overrides));
      if (this.stopped) return;
      db.transaction(() => {
        finishJob(db, job.id, { state: 'done', error: null, ...store() }, now());
        events.append({ type: 'job', personId: job.personId, jobId: job.id });
      });
    } catch (error) {
      if (!this.stopped) this.fail(job, error);
    } finally {
      this.passwords.delete(job.id);
    }
  }

  /** How what was taken in is stored, ready to be done in one transaction. */
  private storing(job: StoredJob, ingested: Ingested): (() => Outcome) | Promise<() => Outcome> {
    const { target, origin } = job.input;
    switch (target.type) {
      case 'draft':
        return () => this.draft(job, ingested);
      case 'version':
        return this.version(job, target.sourceId, ingested);
      case 'source':
        return () => {
          const outcome = this.source(job.personId, target, ingested);
          if (origin.type === 'draft') removeDraft(this.world.db, job.personId, origin.draftId);
          return outcome;
        };
    }
  }

  private draft({ id, personId }: StoredJob, ingested: Ingested): Outcome {
    storeDraft(this.world.db, { id, personId, ingested, now: this.world.now() });
    return { step: 'Ready to be looked at', sourceId: null, already: false };
  }

  private source(
    ownerId: PersonId,
    { sourceId: id, tags, remark, apart }: Extract<JobTarget, { type: 'source' }>,
    ingested: Ingested,
  ): Outcome {
    const { sourceId, already } = storeSource(this.world, { id, ownerId, tags, remark, apart, ingested });
    return { step: already ? 'You had kept this before' : 'Kept', sourceId, already };
  }

  /** Annotations are followed to it in the worker, then everything is stored at once. */
  private async version(job: StoredJob, sourceId: SourceId, ingested: Ingested): Promise<() => Outcome> {
    const prepared = prepareVersion(this.world, sourceId, ingested);
    if (!prepared.changed)
      return () => ({ step: 'Nothing has changed since the version you have', sourceId, already: true });
    this.tell(job, `Finding ${prepared.follow.marks.length} annotations again`, 0.9);
    const followed = await this.world.ingester.follow(prepared.follow);
    return () => {
      storeVersion(this.world, { sourceId, ingested }, prepared, followed);
      return { step: `Kept as version ${prepared.newest.number + 1}`, sourceId, already: false };
    };
  }

  private asking({ id, personId, input: { origin }, uploadHash }: StoredJob): Ask {
    switch (origin.type) {
      case 'address':
        return origin;
      case 'draft':
        return {
          type: 'shape',
          ingested: loadDraft(this.world.db, personId, origin.draftId),
          choices: origin.choices,
        };
      case 'file': {
        const { name, transcript, remote, encoding } = origin;
        // Held for as long as the job may still be worked through.
        const files = { file: uploadHash!, transcript };
        return { type: 'file', name, files, password: this.passwords.get(id), remote, encoding };
      }
    }
  }

  private fail(job: StoredJob, error: unknown): void {
    const { db, now, events, log } = this.world;
    const known = error instanceof AppError ? error : new AppError('broken', { reference: job.id.slice(-8) });
    if (known !== error) log(`job ${job.id}: ${(error as Error)?.stack ?? String(error)}`);
    db.transaction(() => {
      finishJob(
        db,
        job.id,
        { state: 'failed', step: known.message, sourceId: null, already: false, error: toProblem(known) },
        now(),
      );
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

const corrected = (ingested: Ingested, overrides: JobInput['overrides']): Ingested =>
  overrides ? { ...ingested, meta: { ...ingested.meta, ...overrides } } : ingested;
