import { plainWords } from '@avrelle/core/markdown';
import type { ClassId, DeskNotice, PersonId } from '@avrelle/core/wire';
import { IS_OPEN_CLASS, isSetForGroup, sees } from '../access/visible-queries';
import type { Db } from '../db/database';
import type { Asker } from '../find/asker';

/**
 * Of what one may see now: what answers or means one, or is one's own and hidden; what was released, as much of it as
 * is still shown; for who teaches, what is reported and not settled; that one was let in to a class, that a reading is
 * set there or changed, and that answers are shown.
 */
export const NOTICES = `
  SELECT n.id, coalesce(q.name, p.name) AS actor, a.source_id, s.title AS source_title, a.id AS annotation_id,
    r.id AS root_id, r.quote,
    CASE WHEN a.author_id = @me THEN 'hidden' WHEN EXISTS (
      SELECT 1 FROM annotation_link l WHERE l.annotation_id = a.id AND l.type = 'person' AND l.target = @me)
    THEN 'mention' WHEN @me NOT IN (r.author_id, coalesce(up.author_id, '')) AND EXISTS (
      SELECT 1 FROM annotation_link l JOIN annotation mine ON mine.id = l.target
      WHERE l.annotation_id = a.id AND l.type = 'annotation' AND mine.author_id = @me)
    THEN 'link' ELSE 'answer' END AS why,
    coalesce(ac.hidden_reason, a.note) AS reply, n.created_at AS at, n.seen_at IS NOT NULL AS seen,
    1 AS notes, 0 AS first, NULL AS class_id, NULL AS class_name, NULL AS tint
  FROM notification n
  JOIN annotation a ON a.id = n.annotation_id
  JOIN annotation r ON r.id = coalesce(a.root_id, a.id)
  LEFT JOIN annotation up ON up.id = a.parent_id
  JOIN person p ON p.id = a.author_id
  JOIN source s ON s.id = a.source_id
  LEFT JOIN annotation_class ac ON ac.annotation_id = a.id AND a.author_id = @me AND ac.hidden_reason IS NOT NULL
  LEFT JOIN person q ON q.id = ac.hidden_by
  WHERE n.person_id = @me AND ${sees('a')} AND (a.author_id <> @me OR ac.hidden_reason IS NOT NULL) GROUP BY n.id
  UNION ALL
  SELECT n.id, coalesce(p.name, c.name), l.source_id, s.title, a.id, a.id, a.quote, 'released',
    '', n.created_at, n.seen_at IS NOT NULL, count(*), min(a.start), NULL, NULL, NULL
  FROM notification n
  JOIN release l ON l.id = n.release_id
  JOIN class c ON c.id = l.class_id
  LEFT JOIN person p ON p.id = l.released_by
  JOIN source s ON s.id = l.source_id
  JOIN annotation_class ac ON ac.release_id = l.id
  JOIN annotation a ON a.id = ac.annotation_id
  WHERE n.person_id = @me AND ${sees('a')} GROUP BY n.id
  UNION ALL
  SELECT t.class_id || t.annotation_id || t.person_id, p.name, a.source_id, s.title, a.id, coalesce(a.root_id, a.id),
    a.quote, 'reported', t.words, t.reported_at, 0, 1, 0, c.id, c.name, c.tint
  FROM membership m
  JOIN class c ON c.id = m.class_id
  JOIN report t ON t.class_id = m.class_id AND t.settled_at IS NULL
  JOIN person p ON p.id = t.person_id
  JOIN annotation a ON a.id = t.annotation_id
  JOIN source s ON s.id = a.source_id
  WHERE m.person_id = @me AND m.role <> 'student' AND ${sees('a')}
  UNION ALL
  SELECT n.id, coalesce(p.name, c.name), NULL, '', NULL, NULL, '', 'let_in', '', n.created_at, n.seen_at IS NOT NULL,
    0, 0, c.id, c.name, c.tint
  FROM notification n
  JOIN membership m ON m.class_id = n.class_id AND m.person_id = n.person_id
  JOIN class c ON c.id = n.class_id AND ${IS_OPEN_CLASS}
  LEFT JOIN person p ON p.id = n.by_id
  WHERE n.person_id = @me AND n.source_id IS NULL AND n.question_id IS NULL
  UNION ALL
  SELECT n.id, coalesce(p.name, c.name), g.source_id, s.title, NULL, NULL, '', iif(n.again, 'changed', 'set'), '',
    max(n.created_at, coalesce(g.opens_at, '')), n.seen_at IS NOT NULL, 0, 0, c.id, c.name, c.tint
  FROM notification n
  JOIN assignment g ON g.class_id = n.class_id AND g.source_id = n.source_id
  JOIN class_reach w ON w.person_id = n.person_id AND w.class_id = n.class_id AND w.source_id = n.source_id
  JOIN class c ON c.id = n.class_id AND ${IS_OPEN_CLASS}
  JOIN source s ON s.id = n.source_id
  LEFT JOIN person p ON p.id = n.by_id
  WHERE n.person_id = @me AND ${isSetForGroup('w', 'g')}
  UNION ALL
  SELECT n.id, coalesce(p.name, c.name), a.source_id, s.title, a.id, coalesce(a.root_id, a.id), a.quote, 'shown',
    a.note, n.created_at, n.seen_at IS NOT NULL, 0, 0, c.id, c.name, c.tint
  FROM notification n
  JOIN membership m ON m.class_id = n.class_id AND m.person_id = n.person_id
  JOIN annotation a ON a.id = n.question_id
  JOIN question q ON q.annotation_id = a.id AND q.withdrawn = 0
  JOIN class c ON c.id = n.class_id AND ${IS_OPEN_CLASS}
  JOIN source s ON s.id = a.source_id
  LEFT JOIN person p ON p.id = n.by_id
  WHERE n.person_id = @me AND ${sees('a')}
  ORDER BY at DESC LIMIT 30`;
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

interface NoticeRow extends Omit<DeskNotice, 'seen' | 'class'> {
  readonly seen: number;
  readonly first: number;
  readonly classId: ClassId | null;
  readonly className: string;
  readonly tint: string;
}
export const notices = (db: Db, me: PersonId): DeskNotice[] =>
  db.all<NoticeRow>(NOTICES, { me }).map(({ first: _first, classId, className, tint, ...n }) => ({
    ...n,
    reply: plainWords(n.reply),
    seen: n.seen === 1,
    ...(classId === null ? {} : { class: { id: classId, name: className, tint } }),
  }));
export const seeAll = (db: Db, me: PersonId, now: string): number => db.run(SEE_ALL, { me, now });

/** Row numbers of marks of one's own on a day where the asker is. */
export function markedOn(db: Db, { me, ahead }: Asker, day: string): number[] {
  const from = Date.parse(`${day}T00:00:00Z`) - ahead * 60_000;
  const instant = (at: number): string => new Date(at).toISOString();
  return db
    .all<{ seq: number }>(MARKED_ON, { me, from: instant(from), to: instant(from + 86_400_000) })
    .map((r) => r.seq);
}
