import type { Batch, PersonId, BatchId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { jobsOfBatch } from '../jobs/queries';

interface Row {
  id: string;
  label: string;
  paused: number;
  createdAt: string;
}

const INSERT = 'INSERT INTO batch (id, person_id, label, created_at) VALUES (?, ?, ?, ?) ON CONFLICT (id) DO NOTHING';
const ONE = 'SELECT id, label, paused, created_at FROM batch WHERE id = ? AND person_id = ?';
const RECENT = 'SELECT id, label, paused, created_at FROM batch WHERE person_id = ? ORDER BY created_at DESC LIMIT 10';
const PAUSE = 'UPDATE batch SET paused = ? WHERE id = ?';
const REMOVE =
  "DELETE FROM batch WHERE id = ? AND person_id = ? AND NOT EXISTS (SELECT 1 FROM job WHERE batch_id = batch.id AND state = 'running')";

const toWire = (db: Db, row: Row): Batch => ({
  id: row.id,
  label: row.label,
  paused: row.paused === 1,
  createdAt: row.createdAt,
  jobs: jobsOfBatch(db, row.id),
});

interface NewBatch {
  readonly id: BatchId;
  readonly personId: PersonId;
  readonly label: string;
}
export const insertBatch = (db: Db, { id, personId, label }: NewBatch, now: string): boolean =>
  db.run(INSERT, id, personId, label, now) > 0;
export const recentBatches = (db: Db, personId: PersonId): Batch[] =>
  db.all<Row>(RECENT, personId).map((row) => toWire(db, row));
export const pauseBatch = (db: Db, id: string, paused: boolean): number => db.run(PAUSE, paused ? 1 : 0, id);
/** False while one of its jobs is under way. */
export const removeBatch = (db: Db, personId: PersonId, id: string): boolean => db.run(REMOVE, id, personId) > 0;
export function batchOf(db: Db, personId: PersonId, id: string): Batch | undefined {
  const row = db.get<Row>(ONE, id, personId);
  return row && toWire(db, row);
}
