import type { PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import type { Schedule } from './settings-queries';

/** Somebody whose mail is due. */
export interface DueDigest extends Schedule {
  readonly personId: PersonId;
  readonly name: string;
  readonly email: string;
  readonly tries: number;
  readonly nextAt: string;
}
/** Who is suspended gets none, and would get what is new then when they come back. */
export const DIGESTS_DUE = `
  SELECT p.id AS person_id, p.name, p.email, g.every, g.hour, g.zone, g.tries, g.next_at
  FROM digest_schedule g JOIN person p ON p.id = g.person_id AND p.suspended_at IS NULL
  WHERE g.next_at <= ? ORDER BY g.next_at LIMIT 100`;
export const digestsDue = (db: Db, now: string): DueDigest[] => db.all<DueDigest>(DIGESTS_DUE, now);

const SET_NEXT = `
  UPDATE digest_schedule SET next_at = @nextAt, tries = @tries WHERE person_id = @personId AND next_at = @was`;
/** Unless they have chosen anew meanwhile. */
export const setNext = (
  db: Db,
  { personId, nextAt: was }: DueDigest,
  next: { readonly nextAt: string; readonly tries: number },
): number => db.run(SET_NEXT, { personId, was, ...next });

export const UNSENT = 'SELECT id FROM digest WHERE person_id = ? AND sent_at IS NULL';
/** One of which it is not known whether it went out: the process ended meanwhile, or the mail server refused it. */
export const unsentDigest = (db: Db, me: PersonId): string | undefined => db.get<{ id: string }>(UNSENT, me)?.id;

const PUT = `
  INSERT INTO digest (id, person_id, stop_hash, made_at) VALUES (@id, @person, @stopHash, @now)
  ON CONFLICT (id) DO UPDATE SET stop_hash = @stopHash, made_at = @now`;
const ADD = 'INSERT INTO digest_item (person_id, item, digest_id) VALUES (?, ?, ?) ON CONFLICT DO NOTHING';
/** What a mail says is said. Call within a transaction. */
export function putDigest(
  db: Db,
  digest: { readonly id: string; readonly person: PersonId; readonly stopHash: string; readonly now: string },
  items: readonly string[],
): void {
  db.run(PUT, digest);
  for (const item of items) db.run(ADD, digest.person, item, digest.id);
}

const SENT = 'UPDATE digest SET sent_at = ? WHERE id = ?';
export const setSent = (db: Db, id: string, now: string): number => db.run(SENT, now, id);

const TAKE_BACK = 'DELETE FROM digest_item WHERE digest_id = ?';
/** What did not go out has not been said. */
export const takeItemsBack = (db: Db, id: string): number => db.run(TAKE_BACK, id);

const SAID = 'SELECT 1 FROM digest_item WHERE person_id = ? AND item = ?';
export const isSaid = (db: Db, me: PersonId, item: string): boolean => db.get(SAID, me, item) !== undefined;

const RECEIVER = 'SELECT person_id FROM digest WHERE stop_hash = ?';
export const receiverOf = (db: Db, stopHash: string): PersonId | undefined =>
  db.get<{ personId: PersonId }>(RECEIVER, stopHash)?.personId;

const REMOVE_OLD = 'DELETE FROM digest WHERE made_at < ?';
export const removeOldDigests = (db: Db, before: string): number => db.run(REMOVE_OLD, before);
