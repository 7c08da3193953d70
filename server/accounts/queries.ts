import type { Me } from '@avrelle/core/wire';
import type { Db } from '../db/database';

const BY_EMAIL = 'SELECT id, name, email, role, password_hash FROM person WHERE email = ?';
const BY_SESSION =
  'SELECT p.id, p.name, p.email, p.role FROM session s JOIN person p ON p.id = s.person_id WHERE s.token_hash = ? AND s.expires_at > ?';
const INSERT_PERSON = 'INSERT INTO person (id, email, name, password_hash, role, created_at) VALUES (?, ?, ?, ?, ?, ?)';
const ANY_PERSON = 'SELECT 1 AS one FROM person LIMIT 1';
const INSERT_SESSION = 'INSERT INTO session (token_hash, person_id, created_at, expires_at) VALUES (?, ?, ?, ?)';
const DELETE_SESSION = 'DELETE FROM session WHERE token_hash = ?';
const DELETE_EXPIRED = 'DELETE FROM session WHERE expires_at <= ?';

export const personByEmail = (db: Db, email: string) => db.get<Me & { password_hash: string }>(BY_EMAIL, email);
export const personBySession = (db: Db, tokenHash: string, now: string) => db.get<Me>(BY_SESSION, tokenHash, now);
export const hasPeople = (db: Db): boolean => db.get(ANY_PERSON) !== undefined;
export const deleteSession = (db: Db, tokenHash: string): number => db.run(DELETE_SESSION, tokenHash);

export function insertPerson(db: Db, person: Me, passwordHash: string, now: string): void {
  db.run(INSERT_PERSON, person.id, person.email, person.name, passwordHash, person.role, now);
}

export function insertSession(db: Db, tokenHash: string, personId: string, now: string, expiresAt: string): void {
  db.run(DELETE_EXPIRED, now);
  db.run(INSERT_SESSION, tokenHash, personId, now, expiresAt);
}
