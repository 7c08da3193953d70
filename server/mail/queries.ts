import type { PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

const OWNER = 'SELECT person_id FROM intake WHERE local = ?';
const LOCAL = 'SELECT local FROM intake WHERE person_id = ?';
const SET =
  'INSERT INTO intake (person_id, local) VALUES (?, ?) ON CONFLICT (person_id) DO UPDATE SET local = excluded.local';

export const ownerOfLocal = (db: Db, local: string): string | undefined =>
  db.get<{ personId: PersonId }>(OWNER, local)?.personId;
export const localOf = (db: Db, personId: PersonId): string | undefined =>
  db.get<{ local: string }>(LOCAL, personId)?.local;
export const setLocal = (db: Db, personId: PersonId, local: string): number => db.run(SET, personId, local);
