import type { Db } from '../db/database';

const OWNER = 'SELECT person_id FROM intake WHERE local = ?';
const LOCAL = 'SELECT local FROM intake WHERE person_id = ?';
const SET =
  'INSERT INTO intake (person_id, local) VALUES (?, ?) ON CONFLICT (person_id) DO UPDATE SET local = excluded.local';

export const ownerOfLocal = (db: Db, local: string): string | undefined =>
  db.get<{ personId: string }>(OWNER, local)?.personId;
export const localOf = (db: Db, personId: string): string | undefined =>
  db.get<{ local: string }>(LOCAL, personId)?.local;
export const setLocal = (db: Db, personId: string, local: string): number => db.run(SET, personId, local);
