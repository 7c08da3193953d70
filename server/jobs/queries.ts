import type { Job, JobState, Problem, BatchId, PersonId, SourceId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { removeUnused } from '../db/unused';
import { describeBefore } from '../sources/queries';
import { readInput, writeInput, type JobTarget, type JobInput } from './job-input';

interface Row {
  id: string;
  personId: PersonId;
  label: string;
  input: string;
  uploadHash: string | null;
  state: JobState;
  step: string;
  progress: number;
  sourceId: SourceId | null;
  already: number;
  error: string | null;
  batchId: BatchId | null;
  host: string;
}

const COLUMNS =
  'id, person_id, label, input, upload_hash, state, step, progress, source_id, already, error, batch_id, host';
const INSERT = `INSERT INTO job (id, person_id, label, input, upload_hash, transcript_hash, batch_id, seq, host, state, step, progress, source_id, created_at)
  VALUES (@id, @person, @label, @input, @upload, @transcript, @batch, @seq, @host, 'queued', 'Waiting', 0, NULL, @now) ON CONFLICT (id) DO NOTHING`;
const ONE = `SELECT ${COLUMNS} FROM job WHERE id = ? AND person_id = ?`;
/** Of whoever has the least under way, and less than a share, the oldest. */
export const SINGLE = `
  SELECT ${COLUMNS.replace(/\w+/g, 'j.$&')} FROM (
    SELECT q.person_id, min(q.created_at) AS since, (SELECT count(*) FROM job r WHERE r.state = 'running' AND r.person_id = q.person_id AND r.batch_id IS NULL) AS busy
    FROM job q WHERE q.state = 'queued' AND q.batch_id IS NULL GROUP BY q.person_id) t
  JOIN job j ON j.state = 'queued' AND j.person_id = t.person_id AND j.batch_id IS NULL
  WHERE t.busy < @most ORDER BY t.busy, t.since, j.created_at, j.id LIMIT 1`;
/** Of each list that is not paused the first job of each host; the list with the least under way first. */
export const LISTED = `
  SELECT ${COLUMNS.replace(/\w+/g, 'j.$&')}, min(j.seq) FROM job j JOIN batch b ON b.id = j.batch_id
  WHERE j.state = 'queued' AND b.paused = 0 AND NOT EXISTS (SELECT 1 FROM job r WHERE r.state = 'running' AND r.batch_id IS NOT NULL AND r.host = j.host)
  GROUP BY j.batch_id, j.host
  ORDER BY (SELECT count(*) FROM job r WHERE r.state = 'running' AND r.batch_id = j.batch_id), b.created_at, min(j.seq)`;
const LISTED_RUNNING = "SELECT count(*) AS n FROM job WHERE state = 'running' AND batch_id IS NOT NULL";
const RECENT = `SELECT ${COLUMNS} FROM job WHERE person_id = ? AND batch_id IS NULL AND (state IN ('queued', 'running') OR (state = 'failed' AND ended_at > ?)) ORDER BY created_at DESC LIMIT 20`;
export const OF_BATCH = `SELECT ${COLUMNS} FROM job WHERE batch_id = ? ORDER BY seq`;
const PROGRESS = "UPDATE job SET state = 'running', step = ?, progress = ? WHERE id = ?";
const FINISH =
  'UPDATE job SET state = ?, step = ?, progress = 1, source_id = ?, already = ?, error = ?, ended_at = ? WHERE id = ?';
/** What was uploaded is held by the version it became. */
const LET_GO = 'UPDATE job SET upload_hash = NULL, transcript_hash = NULL WHERE id = ?';
const OLD =
  "SELECT id, upload_hash, transcript_hash FROM job WHERE ended_at < @jobs AND (batch_id IS NULL OR ended_at < @batches) AND state IN ('done', 'failed')";
const REMOVE = 'DELETE FROM job WHERE id = ?';
const EMPTY_BATCHES =
  'DELETE FROM batch WHERE created_at < ? AND NOT EXISTS (SELECT 1 FROM job WHERE batch_id = batch.id)';
const REQUEUE = "UPDATE job SET state = 'queued', step = 'Waiting', progress = 0 WHERE state = 'running'";
const AGAIN =
  "UPDATE job SET state = 'queued', step = 'Waiting', progress = 0, error = NULL, ended_at = NULL WHERE id = ? AND person_id = ? AND state = 'failed'";
const AGAIN_ALL =
  "UPDATE job SET state = 'queued', step = 'Waiting', progress = 0, error = NULL, ended_at = NULL WHERE batch_id = ? AND state = 'failed'";
const ALL_THE_SAME =
  "UPDATE job SET input = ?, state = 'queued', step = 'Waiting', progress = 0, source_id = NULL, already = 0, ended_at = NULL WHERE id = ?";
const DISMISS = "DELETE FROM job WHERE id = ? AND person_id = ? AND state IN ('failed', 'done')";

export interface StoredJob {
  readonly id: string;
  readonly personId: PersonId;
  readonly input: JobInput;
  readonly uploadHash: string | null;
  readonly batchId: BatchId | null;
  readonly host: string;
}

export interface NewJob {
  readonly id: string;
  readonly personId: PersonId;
  readonly label: string;
  readonly input: JobInput;
  readonly uploadHash?: string | null;
  readonly batch?: { readonly id: string; readonly seq: number; readonly host: string };
}

const stored = (row: Row): StoredJob => ({
  id: row.id,
  personId: row.personId,
  input: readInput(row.input),
  uploadHash: row.uploadHash,
  batchId: row.batchId,
  host: row.host,
});

export function jobToWire(db: Db, r: Row): Job {
  const { type } = readInput(r.input).target;
  const found = r.already === 1 && type !== 'version' && r.sourceId !== null;
  return {
    id: r.id,
    state: r.state,
    step: r.step,
    progress: r.progress,
    sourceId: r.sourceId,
    already: r.already === 1,
    error: r.error === null ? null : (JSON.parse(r.error) as Problem),
    label: r.label,
    batchId: r.batchId,
    look: type === 'draft',
    before: found ? describeBefore(db, r.sourceId!) : null,
  };
}

/** False where a job with this id is there already. */
export function insertJob(
  db: Db,
  { id, personId, label, input, uploadHash = null, batch }: NewJob,
  now: string,
): boolean {
  return (
    db.run(INSERT, {
      id,
      person: personId,
      label,
      input: writeInput(input),
      upload: uploadHash,
      transcript: input.origin.type === 'file' ? (input.origin.transcript?.hash ?? null) : null,
      batch: batch?.id ?? null,
      seq: batch?.seq ?? 0,
      host: batch?.host ?? '',
      now,
    }) > 0
  );
}

export function jobOf(db: Db, personId: PersonId, id: string): Job | undefined {
  const row = db.get<Row>(ONE, id, personId);
  return row && jobToWire(db, row);
}

/** The next that is not of a list; nobody has more than `most` under way. */
export function nextSingle(db: Db, most: number): StoredJob | undefined {
  const row = db.get<Row>(SINGLE, { most });
  return row && stored(row);
}
export const nextListed = (db: Db): StoredJob[] => db.all<Row>(LISTED).map(stored);
export const listedRunning = (db: Db): number => db.get<{ n: number }>(LISTED_RUNNING)!.n;
export const recentJobs = (db: Db, personId: PersonId, since: string): Job[] =>
  db.all<Row>(RECENT, personId, since).map((row) => jobToWire(db, row));
export const jobsOfBatch = (db: Db, batchId: BatchId): Job[] =>
  db.all<Row>(OF_BATCH, batchId).map((row) => jobToWire(db, row));
export const setProgress = (db: Db, id: string, step: string, share: number): number =>
  db.run(PROGRESS, step, share, id);
export const requeueRunning = (db: Db): number => db.run(REQUEUE);
export const requeueFailed = (db: Db, personId: PersonId, id: string): boolean => db.run(AGAIN, id, personId) > 0;
export const requeueFailedOf = (db: Db, batchId: BatchId): number => db.run(AGAIN_ALL, batchId);
/** Has what was found to be kept before kept all the same, as a version of that source or apart. False for any other job. */
export function requeueFound(db: Db, personId: PersonId, id: string, as: 'version' | 'apart'): boolean {
  const row = db.get<Row>(ONE, id, personId);
  if (!row || row.state !== 'done' || row.already === 0 || row.sourceId === null) return false;
  const input = readInput(row.input);
  const target: JobTarget | undefined =
    as === 'version' ? { type: as, sourceId: row.sourceId } : withApart(input.target);
  if (!target) return false;
  return db.run(ALL_THE_SAME, writeInput({ ...input, target }), id) > 0;
}
const withApart = (target: JobTarget): JobTarget | undefined =>
  target.type === 'source' ? { ...target, apart: true } : undefined;

/** Removes ended jobs with what only they held: single ones that ended before `jobs`, those of lists before `batches`. Call within a transaction. */
export function removeOldJobs(db: Db, jobs: string, batches: string): void {
  const old = db.all<{ id: string; uploadHash: string | null; transcriptHash: string | null }>(OLD, {
    jobs,
    batches,
  });
  for (const { id } of old) db.run(REMOVE, id);
  removeUnused(
    db,
    old.flatMap((job) => [job.uploadHash, job.transcriptHash]).filter((hash) => hash !== null),
  );
  db.run(EMPTY_BATCHES, batches);
}

export const dismissJob = (db: Db, personId: PersonId, id: string): number => db.run(DISMISS, id, personId);

export function finishJob(
  db: Db,
  id: string,
  end: { state: 'done' | 'failed'; step: string; sourceId: SourceId | null; already: boolean; error: Problem | null },
  now: string,
): void {
  db.run(
    FINISH,
    end.state,
    end.step,
    end.sourceId,
    end.already ? 1 : 0,
    end.error && JSON.stringify(end.error),
    now,
    id,
  );
  // One that found what is there already may still be kept all the same.
  if (end.state === 'done' && !end.already) db.run(LET_GO, id);
}
