import { plainWords } from '@avrelle/core/markdown';
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
import { isShownTo, sees } from '../access/visible-queries';
import { TRACE } from '../annotations/queries';
import type { Db } from '../db/database';
import type { Asker } from '../find/asker';
import { findAnnotations } from '../find/find';
import { KIND_COLUMNS, KIND_JOIN, kindFrom, type KindRow } from '../legend/queries';

export interface Asked {
  readonly classId: ClassId;
  readonly sourceId?: SourceId | undefined;
  readonly query: Query | undefined;
  readonly sort: ThreadSort;
  readonly only?: ThreadFilter | undefined;
  readonly offset: number;
  readonly limit: number;
}

/** What stands in the text for a class, and is for the asker there; `@source` null is all of its readings. */
const ROOTS = `annotation_class ac
  JOIN membership m ON m.class_id = ac.class_id AND m.person_id = @me
  JOIN annotation a ON a.id = ac.annotation_id AND a.root_id IS NULL
  JOIN class_source cs ON cs.class_id = ac.class_id AND cs.source_id = a.source_id`;
const ARE_MINE = `ac.class_id = @class AND (@source IS NULL OR a.source_id = @source)
    AND (a.author_id = @me OR ${isShownTo('m', 'ac')}) AND (${sees('a')} OR ${TRACE})`;
/** All of a thread that the asker sees. */
const OF_THREAD = `annotation r WHERE (r.id = a.id OR r.root_id = a.id) AND ${sees('r')}`;
const UNSEEN = `r.author_id <> @me AND NOT EXISTS (
  SELECT 1 FROM annotation_seen n WHERE n.annotation_id = r.id AND n.person_id = @me)`;
/** `@found` are row numbers, null where nothing is looked for. */
export const THREADS = `
  SELECT a.id, a.source_id, a.author_id, a.kind, a.kind_owner, a.quote, a.note, a.start, a.created_at, a.deleted_at,
    (SELECT count(*) FROM annotation r WHERE r.root_id = a.id AND ${sees('r')}) AS answers,
    (SELECT max(r.created_at) FROM ${OF_THREAD}) AS newest_at,
    (SELECT count(*) FROM ${OF_THREAD} AND ${UNSEEN}) AS unread,
    EXISTS (SELECT 1 FROM annotation_star z WHERE z.annotation_id = a.id AND z.person_id = @me) AS starred
  FROM ${ROOTS} WHERE ${ARE_MINE} AND (@found IS NULL OR a.id IN (
    SELECT coalesce(f.root_id, f.id) FROM json_each(@found) j JOIN annotation f ON f.seq = j.value))`;

const ONLY: Readonly<Record<ThreadFilter, string>> = {
  unread: 'a.unread > 0',
  unanswered: 'a.answers = 0',
  starred: 'a.starred',
};
const ORDER: Readonly<Record<ThreadSort, string>> = {
  answered: 'a.newest_at DESC',
  newest: 'a.created_at DESC',
  place: 'folded(s.title), s.id, a.start',
  answers: 'a.answers DESC, a.newest_at DESC',
  author: 'folded(p.name), a.created_at DESC',
};

interface Row extends KindRow {
  readonly id: AnnotationId;
  readonly sourceId: SourceId;
  readonly title: string;
  readonly language: string;
  readonly authorId: PersonId;
  readonly author: string;
  readonly quote: string;
  readonly note: string;
  readonly tags: string;
  readonly createdAt: string;
  readonly deletedAt: string | null;
  readonly answers: number;
  readonly newestAt: string;
  readonly unread: number;
  readonly starred: number;
  readonly total: number;
  readonly allUnread: number;
}

/** Threads of a class that somebody sees, in the order asked for. */
export function threadsOf(db: Db, asker: Asker, asked: Asked): ThreadPage {
  const { classId, sourceId = null, query, sort, only, offset, limit } = asked;
  const found = query === undefined ? null : JSON.stringify(findAnnotations(db, query, asker, 'newest'));
  const sql = `
    SELECT a.*, s.title, s.language, p.name AS author, ${KIND_COLUMNS},
      (SELECT json_group_array(tag) FROM annotation_tag t WHERE t.annotation_id = a.id) AS tags,
      count(*) OVER () AS total, sum(a.unread > 0) OVER () AS all_unread
    FROM (${THREADS}) a JOIN source s ON s.id = a.source_id JOIN person p ON p.id = a.author_id ${KIND_JOIN}
    WHERE (a.note <> '' OR a.answers > 0) ${only ? `AND ${ONLY[only]}` : ''}
    ORDER BY ${ORDER[sort]}, a.id DESC LIMIT @limit OFFSET @offset`;
  const rows = db.all<Row>(sql, { me: asker.me, class: classId, source: sourceId, found, limit, offset });
  return { threads: rows.map(threadOf), total: rows[0]?.total ?? 0, unread: rows[0]?.allUnread ?? 0 };
}

const threadOf = (row: Row): ThreadRow => ({
  id: row.id,
  source: { id: row.sourceId, title: row.title, language: row.language },
  author: { id: row.authorId, name: row.author },
  kind: kindFrom(row),
  quote: row.quote,
  createdAt: row.createdAt,
  answers: row.answers,
  newestAt: row.newestAt,
  unread: row.unread,
  starred: row.starred === 1,
  ...(row.deletedAt === null
    ? { words: plainWords(row.note), tags: JSON.parse(row.tags) as string[] }
    : { words: '', tags: [], deleted: true as const }),
});

export const SEE_ALL = `
  INSERT INTO annotation_seen (annotation_id, person_id, seen_at)
  SELECT r.id, @me, @now FROM ${ROOTS} JOIN annotation r ON r.id = a.id OR r.root_id = a.id
  WHERE ${ARE_MINE} AND r.author_id <> @me AND ${sees('r')}
  ON CONFLICT DO NOTHING`;
/** Counts all threads of a class, or of one of its readings, as read. */
export const seeThreads = (
  db: Db,
  me: PersonId,
  { classId, sourceId = null }: { readonly classId: ClassId; readonly sourceId?: SourceId | null | undefined },
  now: string,
): number => db.run(SEE_ALL, { me, class: classId, source: sourceId, now });

const STAR = `
  INSERT INTO annotation_star (person_id, annotation_id, starred_at) VALUES (@me, @id, @now) ON CONFLICT DO NOTHING`;
const UNSTAR = 'DELETE FROM annotation_star WHERE person_id = ? AND annotation_id = ?';
export const star = (db: Db, me: PersonId, id: AnnotationId, now: string): number => db.run(STAR, { me, id, now });
export const unstar = (db: Db, me: PersonId, id: AnnotationId): number => db.run(UNSTAR, me, id);
