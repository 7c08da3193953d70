import type { Me, PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

const ME = 'p.id, p.name, p.email, p.role';
const BY_EMAIL = `SELECT ${ME}, p.password_hash, p.suspended_at FROM person p WHERE p.email = ?`;
const BY_ID = `SELECT ${ME}, p.password_hash, p.suspended_at FROM person p WHERE p.id = ?`;
const BY_SESSION = `SELECT ${ME}, s.seen_at FROM session s JOIN person p ON p.id = s.person_id WHERE s.token_hash = ? AND s.expires_at > ? AND p.suspended_at IS NULL`;
const INSERT_PERSON = 'INSERT INTO person (id, email, name, password_hash, role, created_at) VALUES (?, ?, ?, ?, ?, ?)';
const ANY_PERSON = 'SELECT 1 AS one FROM person LIMIT 1';
const SET_PASSWORD = 'UPDATE person SET password_hash = ? WHERE id = ?';
const SET_NAME = 'UPDATE person SET name = ? WHERE id = ?';

type WithPassword = Me & { readonly passwordHash: string; readonly suspendedAt: string | null };

export const personByEmail = (db: Db, email: string) => db.get<WithPassword>(BY_EMAIL, email);
export const personById = (db: Db, id: string) => db.get<WithPassword>(BY_ID, id);
export const personBySession = (db: Db, tokenHash: string, now: string) =>
  db.get<Me & { readonly seenAt: string }>(BY_SESSION, tokenHash, now);
export const hasPeople = (db: Db): boolean => db.get(ANY_PERSON) !== undefined;
export const setPassword = (db: Db, id: string, hash: string): number => db.run(SET_PASSWORD, hash, id);
export const setName = (db: Db, id: string, name: string): number => db.run(SET_NAME, name, id);

export function insertPerson(db: Db, person: Me, passwordHash: string, now: string): void {
  db.run(INSERT_PERSON, person.id, person.email, person.name, passwordHash, person.role, now);
}

const INSERT_SESSION =
  'INSERT INTO session (token_hash, id, person_id, created_at, expires_at, seen_at, agent) VALUES (?, ?, ?, ?, ?, ?, ?)';
const DELETE_SESSION = 'DELETE FROM session WHERE token_hash = ?';
const DELETE_EXPIRED = 'DELETE FROM session WHERE expires_at <= ?';
const SEEN = 'UPDATE session SET seen_at = ? WHERE token_hash = ?';
const SESSIONS =
  'SELECT token_hash, id, agent, created_at, seen_at FROM session WHERE person_id = ? AND expires_at > ? ORDER BY seen_at DESC';

interface SessionStart {
  readonly tokenHash: string;
  readonly id: string;
  readonly personId: PersonId;
  readonly now: string;
  readonly expiresAt: string;
  readonly agent: string;
}

export function insertSession(db: Db, { tokenHash, id, personId, now, expiresAt, agent }: SessionStart): void {
  db.run(DELETE_EXPIRED, now);
  db.run(INSERT_SESSION, tokenHash, id, personId, now, expiresAt, now, agent);
}
export const deleteSession = (db: Db, tokenHash: string): number => db.run(DELETE_SESSION, tokenHash);
export const sessionSeen = (db: Db, tokenHash: string, now: string): number => db.run(SEEN, now, tokenHash);

export interface SessionRow {
  readonly tokenHash: string;
  readonly id: string;
  readonly agent: string;
  readonly createdAt: string;
  readonly seenAt: string;
}
export const sessionsOf = (db: Db, personId: PersonId, now: string): SessionRow[] =>
  db.all<SessionRow>(SESSIONS, personId, now);
