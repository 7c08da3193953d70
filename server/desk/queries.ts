import type { DeskNotice } from '@avrelle/core/wire';
import type { Db } from '../db/database';

export const NOTICES = `
  SELECT n.id, p.name AS actor, a.source_id AS sourceId, s.title AS sourceTitle, a.id AS annotationId, r.id AS rootId, r.quote, CASE WHEN EXISTS (SELECT 1 FROM annotation_link l WHERE l.annotation_id = a.id AND l.type = 'person' AND l.target = @me) THEN 'mention' ELSE 'answer' END AS why, a.note AS reply, n.created_at AS at, n.seen_at IS NOT NULL AS seen
  FROM notification n
  JOIN annotation a ON a.id = n.annotation_id
  JOIN annotation r ON r.id = coalesce(a.root_id, a.id)
  JOIN person p ON p.id = a.author_id
  JOIN source s ON s.id = a.source_id
  WHERE n.person_id = @me AND EXISTS (SELECT 1 FROM annotation_visible v WHERE v.person_id = @me AND v.seq = a.seq)
  ORDER BY n.created_at DESC LIMIT 30`;
const SEE_ALL = 'UPDATE notification SET seen_at = ? WHERE person_id = ? AND seen_at IS NULL';

export const notices = (db: Db, me: string): DeskNotice[] => db.all<Omit<DeskNotice, 'seen'> & { seen: number }>(NOTICES, { me } as never).map((n) => ({ ...n, seen: n.seen === 1 }));
export const seeAll = (db: Db, me: string, now: string): number => db.run(SEE_ALL, now, me);
