import type { Job, JobState, Problem } from '@avrelle/core/wire';
import type { Db } from '../db/database';

interface Row { id: string; person_id: string; label: string; input: string; upload_hash: string | null; state: JobState; step: string; progress: number; source_id: string | null; already: number; error: string | null }

const COLUMNS = 'id, person_id, label, input, upload_hash, state, step, progress, source_id, already, error';
const INSERT = `INSERT INTO job (id, person_id, label, input, upload_hash, state, step, progress, source_id, created_at) VALUES (?, ?, ?, ?, ?, 'queued', 'Waiting', 0, NULL, ?) ON CONFLICT (id) DO NOTHING`;
const ONE = `SELECT ${COLUMNS} FROM job WHERE id = ? AND person_id = ?`;
const NEXT = `SELECT ${COLUMNS} FROM job WHERE state = 'queued' ORDER BY created_at LIMIT 1`;
const RECENT = `SELECT ${COLUMNS} FROM job WHERE person_id = ? AND (state IN ('queued', 'running') OR (state = 'failed' AND ended_at > ?)) ORDER BY created_at DESC LIMIT 20`;
const PROGRESS = "UPDATE job SET state = 'running', step = ?, progress = ? WHERE id = ?";
const FINISH = 'UPDATE job SET state = ?, step = ?, progress = 1, source_id = ?, already = ?, error = ?, ended_at = ? WHERE id = ?';
const REQUEUE = "UPDATE job SET state = 'queued', step = 'Waiting', progress = 0 WHERE state = 'running'";
const DISMISS = "DELETE FROM job WHERE id = ? AND person_id = ? AND state IN ('failed', 'done')";

export interface JobInput { readonly sourceId: string; readonly address?: string; readonly fileName?: string; readonly tags: readonly string[]; /** To be kept as a new version of the source. */ readonly again?: true }
export interface StoredJob { readonly id: string; readonly personId: string; readonly input: JobInput; readonly uploadHash: string | null }

const toWire = (r: Row): Job => ({ id: r.id, state: r.state, step: r.step, progress: r.progress, sourceId: r.source_id, already: r.already === 1, error: r.error === null ? null : (JSON.parse(r.error) as Problem), label: r.label });

export function insertJob(db: Db, id: string, personId: string, label: string, input: JobInput, uploadHash: string | null, now: string): boolean {
  return db.run(INSERT, id, personId, label, JSON.stringify(input), uploadHash, now) > 0;
}

export function jobOf(db: Db, personId: string, id: string): Job | undefined {
  const row = db.get<Row>(ONE, id, personId);
  return row && toWire(row);
}

export function nextJob(db: Db): StoredJob | undefined {
  const row = db.get<Row>(NEXT);
  return row && { id: row.id, personId: row.person_id, input: JSON.parse(row.input) as JobInput, uploadHash: row.upload_hash };
}

export const recentJobs = (db: Db, personId: string, since: string): Job[] => db.all<Row>(RECENT, personId, since).map(toWire);
export const setProgress = (db: Db, id: string, step: string, share: number): number => db.run(PROGRESS, step, share, id);
export const requeueRunning = (db: Db): number => db.run(REQUEUE);
export const dismissJob = (db: Db, personId: string, id: string): number => db.run(DISMISS, id, personId);

export function finishJob(db: Db, id: string, end: { state: 'done' | 'failed'; step: string; sourceId: string | null; already: boolean; error: Problem | null }, now: string): void {
  db.run(FINISH, end.state, end.step, end.sourceId, end.already ? 1 : 0, end.error && JSON.stringify(end.error), now, id);
}
