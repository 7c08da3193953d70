import type { AnswerOf, Api } from '@avrelle/core/api';
import type { Db } from '../db/database';

const FOUND = "FROM person p WHERE (@like = '' OR p.name LIKE @like ESCAPE '\\' OR p.email LIKE @like ESCAPE '\\')";
const PEOPLE = `SELECT p.id, p.name, p.email, p.role, p.created_at AS createdAt, p.suspended_at IS NOT NULL AS suspended,
    (SELECT max(s.seen_at) FROM session s WHERE s.person_id = p.id) AS seenAt,
    (SELECT count(*) FROM source s WHERE s.owner_id = p.id AND s.deleted_at IS NULL) AS sources,
    (SELECT count(*) FROM membership m WHERE m.person_id = p.id) AS classes
  ${FOUND} ORDER BY p.name COLLATE NOCASE, p.id LIMIT @limit OFFSET @offset`;
const COUNT = `SELECT count(*) AS n ${FOUND}`;
const SUSPEND = 'UPDATE person SET suspended_at = ? WHERE id = ?';

type PeoplePage = AnswerOf<Api['GET /api/people']>;

/** Accounts by name; what is searched for stands in their name or address. */
export function peoplePage(db: Db, search: string, offset: number, limit: number): PeoplePage {
  const like = search.trim() ? `%${search.trim().replace(/[%_\\]/g, '\\$&')}%` : '';
  const rows = db.all<Omit<PeoplePage['people'][number], 'suspended'> & { readonly suspended: number }>(PEOPLE, {
    like,
    limit,
    offset,
  });
  return {
    people: rows.map((row) => ({ ...row, suspended: row.suspended === 1 })),
    total: db.get<{ n: number }>(COUNT, { like })!.n,
  };
}

export const setSuspended = (db: Db, id: string, since: string | null): boolean => db.run(SUSPEND, since, id) > 0;
