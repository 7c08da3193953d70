import type { Query } from '@avrelle/core/query';
import type {
  AnnotationId,
  ClassId,
  PersonId,
  SourceId,
  ThreadFilter,
  ThreadPage,
  ThreadRow,
  ThreadSort,
} from '@avrelle/core/wire';
import { reach, sees, seesByReach } from '../access/visible-queries';
import { classNoteOf, type ClassNoteRow } from '../annotations/class-note';
import { TRACE } from '../annotations/queries';
import type { Db } from '../db/database';
import type { Asker } from '../find/asker';
import { findAnnotations } from '../find/find';
import { KIND_COLUMNS, KIND_JOIN } from '../legend/queries';

export interface Asked {
  readonly classId: ClassId;
  readonly sourceId?: SourceId | undefined;
  readonly query: Query | undefined;
  readonly sort: ThreadSort;
  readonly only?: ThreadFilter | undefined;
  readonly offset: number;
  readonly limit: number;
}

const isUnseen = (x: string): string => `(${x}.author_id <> @me AND NOT EXISTS (
  SELECT 1 FROM annotation_seen n WHERE n.annotation_id = ${x}.id AND n.person_id = @me))`;
/**
 * As tables: `roots` are what stands in the text for a class and the asker sees by it, `answers` those to each that
 * they see. `@source` null is all readings of the class; `@found` are row numbers, null where nothing is looked for.
 */
const WITH = `
  WITH reach AS MATERIALIZED (${reach('AND cs.class_id = @class')}),
  roots AS MATERIALIZED (
    SELECT a.*, ac.hidden_reason IS NOT NULL AS hidden FROM annotation_class ac
    JOIN annotation a ON a.id = ac.annotation_id AND a.root_id IS NULL
    JOIN class_source cs ON cs.class_id = ac.class_id AND cs.source_id = a.source_id
    WHERE ac.class_id = @class AND (@source IS NULL OR a.source_id = @source)
      AND (${seesByReach('a', 'reach')} OR (${TRACE}))
      AND (@found IS NULL OR a.id IN (
        SELECT coalesce(f.root_id, f.id) FROM json_each(@found) j JOIN annotation f ON f.seq = j.value))),
  answers AS MATERIALIZED (
    SELECT r.root_id, count(*) AS many, max(r.created_at) AS newest, max(r.endorsed_by) AS endorsed_by,
      sum(${isUnseen('r')}) AS unread
    FROM roots CROSS JOIN annotation r ON r.root_id = roots.id WHERE ${sees('r')} GROUP BY r.root_id)`;
const THREADS = `
  SELECT roots.id, roots.source_id, roots.author_id, roots.kind, roots.kind_owner, roots.quote, roots.note,
    roots.start, roots.created_at, roots.deleted_at, roots.hidden,
    coalesce(roots.endorsed_by, answers.endorsed_by) AS endorsed_by,
    coalesce(answers.many, 0) AS answers, max(roots.created_at, coalesce(answers.newest, '')) AS newest_at,
    (roots.deleted_at IS NULL AND ${isUnseen('roots')}) + coalesce(answers.unread, 0) AS unread
  FROM roots LEFT JOIN answers ON answers.root_id = roots.id
  WHERE roots.note <> '' OR answers.many > 0`;
const IS_REPORTED = `EXISTS (
  SELECT 1 FROM report t JOIN annotation r ON r.id = t.annotation_id AND r.deleted_at IS NULL
  JOIN membership m ON m.class_id = t.class_id AND m.person_id = @me AND m.role <> 'student'
  WHERE t.class_id = @class AND t.settled_at IS NULL AND (r.id = a.id OR r.root_id = a.id))`;
const IS_STARRED = `EXISTS (
  SELECT 1 FROM annotation_star z WHERE z.annotation_id = a.id AND z.person_id = @me)`;
/** Those that are asked for, in the order asked for; what only is shown of them is asked of one page. */
export const threadsQuery = (sort: ThreadSort, only?: ThreadFilter): string => `${WITH},
  a AS (
    SELECT a.*, s.title, s.language, p.name AS author,
      count(*) OVER () AS total, sum(a.unread > 0) OVER () AS all_unread
    FROM (${THREADS}) a JOIN source s ON s.id = a.source_id JOIN person p ON p.id = a.author_id
    ${only ? `WHERE ${ONLY[only]}` : ''} ORDER BY ${ORDER[sort]}, a.id DESC LIMIT @limit OFFSET @offset)
  SELECT a.*, ${KIND_COLUMNS}, (SELECT q.name FROM person q WHERE q.id = a.endorsed_by) AS endorsed,
    (SELECT json_group_array(tag) FROM annotation_tag t WHERE t.annotation_id = a.id) AS tags,
    ${IS_REPORTED} AS reported, ${IS_STARRED} AS starred
  FROM a ${KIND_JOIN} ORDER BY ${ORDER[sort]}, a.id DESC`;

const ONLY: Readonly<Record<ThreadFilter, string>> = {
  unread: 'a.unread > 0',
  unanswered: 'a.answers = 0',
  starred: IS_STARRED,
  endorsed: 'a.endorsed_by IS NOT NULL',
  hidden: 'a.hidden',
  reported: IS_REPORTED,
};
const ORDER: Readonly<Record<ThreadSort, string>> = {
  answered: 'a.newest_at DESC',
  newest: 'a.created_at DESC',
  place: 'folded(title), a.source_id, a.start',
  answers: 'a.answers DESC, a.newest_at DESC',
  author: 'folded(author), a.created_at DESC',
};

interface Row extends ClassNoteRow {
  readonly tags: string;
  readonly createdAt: string;
  readonly deletedAt: string | null;
  readonly answers: number;
  readonly newestAt: string;
  readonly unread: number;
  readonly starred: number;
  readonly endorsed: string | null;
  readonly hidden: number;
  readonly reported: number;
  readonly total: number;
  readonly allUnread: number;
}

/** Threads of a class that somebody sees, in the order asked for. */
export function threadsOf(db: Db, asker: Asker, asked: Asked): ThreadPage {
  const { classId, sourceId = null, query, sort, only, offset, limit } = asked;
  const found = query === undefined ? null : JSON.stringify(findAnnotations(db, query, asker, 'newest'));
  const rows = db.all<Row>(threadsQuery(sort, only), {
    me: asker.me,
    class: classId,
    source: sourceId,
    found,
    limit,
    offset,
  });
  return { threads: rows.map(threadOf), total: rows[0]?.total ?? 0, unread: rows[0]?.allUnread ?? 0 };
}

const threadOf = (row: Row): ThreadRow => ({
  ...classNoteOf(row),
  tags: JSON.parse(row.tags) as string[],
  createdAt: row.createdAt,
  answers: row.answers,
  newestAt: row.newestAt,
  unread: row.unread,
  starred: row.starred === 1,
  ...(row.endorsed === null ? {} : { endorsed: row.endorsed }),
  ...(row.hidden === 1 ? { hidden: true as const } : {}),
  ...(row.reported === 1 ? { reported: true as const } : {}),
  ...(row.deletedAt === null ? {} : { words: '', tags: [], deleted: true as const }),
});

export const SEE_ALL = `
  INSERT INTO annotation_seen (annotation_id, person_id, seen_at) ${WITH}
  SELECT id, @me, @now FROM roots WHERE deleted_at IS NULL AND author_id <> @me
  UNION
  SELECT r.id, @me, @now FROM roots CROSS JOIN annotation r ON r.root_id = roots.id
  WHERE r.author_id <> @me AND ${sees('r')}
  ON CONFLICT DO NOTHING`;
/** Counts all threads of a class, or of one of its readings, as read. */
export const seeThreads = (
  db: Db,
  me: PersonId,
  { classId, sourceId = null }: { readonly classId: ClassId; readonly sourceId?: SourceId | null | undefined },
  now: string,
): number => db.run(SEE_ALL, { me, class: classId, source: sourceId, found: null, now });

const STAR = `
  INSERT INTO annotation_star (person_id, annotation_id, starred_at) VALUES (@me, @id, @now) ON CONFLICT DO NOTHING`;
export const STARS = `
  SELECT st.annotation_id FROM annotation a
  JOIN annotation_star st ON st.annotation_id = a.id AND st.person_id = @me
  WHERE a.source_id = @source`;
export const starsOn = (db: Db, me: PersonId, source: SourceId): AnnotationId[] =>
  db.all<{ annotationId: AnnotationId }>(STARS, { me, source }).map((row) => row.annotationId);
const UNSTAR = 'DELETE FROM annotation_star WHERE person_id = ? AND annotation_id = ?';
export const star = (db: Db, me: PersonId, id: AnnotationId, now: string): number => db.run(STAR, { me, id, now });
export const unstar = (db: Db, me: PersonId, id: AnnotationId): number => db.run(UNSTAR, me, id);
