import type { PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import type { Asker } from '../find/asker';

/** One's own marks between two instants, the notes first; by the index of authors and times. */
export const MARKED_ON = `
  SELECT a.seq FROM annotation a WHERE a.author_id = @me AND a.created_at >= @from AND a.created_at < @to AND a.root_id IS NULL AND a.deleted_at IS NULL
    AND EXISTS (SELECT 1 FROM source_visible v WHERE v.person_id = @me AND v.source_id = a.source_id)
  ORDER BY a.note = '', a.created_at DESC LIMIT 3`;
/** What is not open yet has not been seen. */
const SEE_ALL = `
  UPDATE notification SET seen_at = @now WHERE person_id = @me AND seen_at IS NULL AND NOT EXISTS (
    SELECT 1 FROM assignment g
    WHERE g.class_id = notification.class_id AND g.source_id = notification.source_id AND g.is_open = 0)`;

export const seeAll = (db: Db, me: PersonId, now: string): number => db.run(SEE_ALL, { me, now });

/** Row numbers of marks of one's own on a day where the asker is. */
export function markedOn(db: Db, { me, ahead }: Asker, day: string): number[] {
  const from = Date.parse(`${day}T00:00:00Z`) - ahead * 60_000;
  const instant = (at: number): string => new Date(at).toISOString();
  return db
    .all<{ seq: number }>(MARKED_ON, { me, from: instant(from), to: instant(from + 86_400_000) })
    .map((r) => r.seq);
}
