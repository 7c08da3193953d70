import type { Clock } from '../clock';
import type { Db } from '../db/database';
import { loadDraft, removeDraft, storeDraft } from '../drafts/queries';
import { AppError, toProblem } from '../errors';
import { removeLeftChunks } from '../db/unused';
import type { EventLog } from '../events/event-log';
import type { Ingested } from '../ingest/ingested';
import type { Ask, Ingester } from '../ingest/ingester';
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
  readonly sourceId: string | null;
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
  kick(jobId?: string, password?: string): void {
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
      const ingested = this.corrected(
        job,
        await ingester.run(this.inputOf(job), (step, share) => this.tell(job, step, share)),
      );
      if (this.stopped) return;
      const store = await this.storing(job, ingested);
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
  private async storing(job: StoredJob, ingested: Ingested): Promise<() => Outcome> {
    if (job.input.look) return () => this.draft(job, ingested);
    return job.input.again ? this.again(job, ingested) : () => this.first(job, ingested);
  }

  private corrected({ input: { draft, author } }: StoredJob, ingested: Ingested): Ingested {
    const byReader = author ? { author } : undefined;
    const said = draft ? { title: draft.title, author: draft.author } : byReader;
    return said ? { ...ingested, meta: { ...ingested.meta, ...said } } : ingested;
  }

  private draft(job: StoredJob, ingested: Ingested): Outcome {
    storeDraft(this.world.db, { id: job.id, personId: job.personId, ingested, now: this.world.now() });
    return { step: 'Ready to be looked at', sourceId: null, already: false };
  }

  private first({ personId: ownerId, input }: StoredJob, ingested: Ingested): Outcome {
    const { sourceId, already } = storeSource(this.world, {
      id: input.sourceId,
      ownerId,
      tags: input.tags,
      remark: input.remark,
      apart: input.apart,
      ingested,
    });
    if (input.draft) removeDraft(this.world.db, ownerId, input.draft.id);
    return { step: already ? 'You had kept this before' : 'Kept', sourceId, already };
  }

  /** A new version: annotations are followed to it in the worker, then everything is stored at once. */
  private async again({ id, personId, input: { sourceId } }: StoredJob, ingested: Ingested): Promise<() => Outcome> {
    const prepared = prepareVersion(this.world, sourceId, ingested);
    if (!prepared.changed)
      return () => ({ step: 'Nothing has changed since the version you have', sourceId, already: true });
    this.tell({ id, personId }, `Finding ${prepared.follow.marks.length} annotations again`, 0.9);
    const followed = await this.world.ingester.follow(prepared.follow);
    return () => {
      storeVersion(this.world, sourceId, ingested, prepared, followed);
      return { step: `Kept as version ${prepared.newest.number + 1}`, sourceId, already: false };
    };
  }

  private inputOf({ id, personId, input, uploadHash }: StoredJob): Ask {
    const { choices, transcript } = input;
    if (input.draft)
      return { type: 'shape', ingested: loadDraft(this.world.db, personId, input.draft.id), choices: choices! };
    if (!uploadHash)
      return { type: 'address', address: input.address ?? '', choices, polite: input.polite, encoding: input.encoding };
    return {
      type: 'file',
      name: input.fileName ?? 'file',
      files: { file: uploadHash, transcript },
      password: this.passwords.get(id),
      remote: input.remote,
      encoding: input.encoding,
    };
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
