import type { Me, PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

const INSERT =
  'INSERT INTO token (id, person_id, name, scope, hash, created_at, expires_at) VALUES (?, ?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING';
const OF_PERSON =
  'SELECT id, name, scope, created_at AS createdAt, expires_at AS expiresAt, used_at AS usedAt FROM token WHERE person_id = ? ORDER BY created_at DESC, id DESC';
const BY_HASH = `SELECT t.id AS tokenId, t.scope, t.used_at AS usedAt, p.id, p.name, p.email, p.role FROM token t JOIN person p ON p.id = t.person_id
  WHERE t.hash = ? AND t.expires_at > ? AND p.suspended_at IS NULL`;
const USED = 'UPDATE token SET used_at = ? WHERE id = ?';
const REMOVE = 'DELETE FROM token WHERE id = ? AND person_id = ?';
const REMOVE_ALL = 'DELETE FROM token WHERE person_id = ?';

export type Scope = 'read' | 'write';
interface TokenRow {
  readonly id: string;
  readonly name: string;
  readonly scope: Scope;
  readonly createdAt: string;
  readonly expiresAt: string;
  readonly usedAt: string | null;
}
interface NewToken {
  readonly id: string;
  readonly personId: PersonId;
  readonly name: string;
  readonly scope: Scope;
  readonly hash: string;
  readonly now: string;
  readonly expiresAt: string;
}

/** False where the id is in use. */
export const insertToken = (db: Db, { id, personId, name, scope, hash, now, expiresAt }: NewToken): boolean =>
  db.run(INSERT, id, personId, name, scope, hash, now, expiresAt) > 0;
export const tokensOf = (db: Db, personId: PersonId): TokenRow[] => db.all<TokenRow>(OF_PERSON, personId);
export const personByToken = (db: Db, hash: string, now: string) =>
  db.get<Me & { readonly tokenId: string; readonly scope: Scope; readonly usedAt: string | null }>(BY_HASH, hash, now);
export const tokenUsed = (db: Db, id: string, now: string): number => db.run(USED, now, id);
export const removeToken = (db: Db, personId: PersonId, id: string): boolean => db.run(REMOVE, id, personId) > 0;
export const removeTokens = (db: Db, personId: PersonId): number => db.run(REMOVE_ALL, personId);
