import type { Db } from '../db/database';
import { KIND_LOOK, type KindRow } from '../key/queries';

/** What marks a hit inside a snippet: control characters no source text holds. */
export const OPEN = '\u0002', CLOSE = '\u0003', CUT = '\u0004';
const MARKS = `'${OPEN}', '${CLOSE}', '${CUT}'`;

export interface PassageRow { source_id: string; title: string; site: string; stream: string; snippet: string }
export interface AnnotationHitRow extends KindRow { id: string; source_id: string; root_id: string | null; title: string; site: string; author: string; quote: string; note: string; tags: string }

/** Ranking comes first, snippets after: a snippet is dear, and only those that are shown are made. */
export const PASSAGES = `
  SELECT s.id AS source_id, s.title, s.site, t.stream, snippet(text_fts, 1, ${MARKS}, 28) AS snippet
  FROM (
    SELECT text_fts.rowid AS seq, bm25(text_fts, 6.0, 1.0) AS rank
    FROM text_fts JOIN version_text v ON v.seq = text_fts.rowid JOIN source o ON o.current_version = v.version_id
    WHERE text_fts MATCH @query AND o.id IN (SELECT source_id FROM source_visible WHERE person_id = @me)
    ORDER BY rank LIMIT @limit) best
  JOIN text_fts ON text_fts.rowid = best.seq JOIN version_text t ON t.seq = best.seq JOIN source s ON s.current_version = t.version_id
  WHERE text_fts MATCH @query ORDER BY best.rank`;
const SEEN = 'EXISTS (SELECT 1 FROM annotation_visible v WHERE v.person_id = @me AND v.annotation_id = a.id)';
/** An answer has the kind of what it answers. */
const HIT = `a.id, a.source_id, a.root_id, s.title, s.site, coalesce(r.kind, a.kind) AS kind, ${KIND_LOOK}, p.name AS author, (SELECT json_group_array(tag) FROM annotation_tag t WHERE t.annotation_id = a.id) AS tags`;
const JOINS = `JOIN source s ON s.id = a.source_id JOIN person p ON p.id = a.author_id LEFT JOIN annotation r ON r.id = a.root_id LEFT JOIN kind k ON k.owner_id = coalesce(r.kind_owner, a.kind_owner) AND k.code = coalesce(r.kind, a.kind)`;
export const ANNOTATIONS = `
  SELECT ${HIT}, snippet(annotation_fts, 0, ${MARKS}, 32) AS quote, snippet(annotation_fts, 1, ${MARKS}, 32) AS note
  FROM (
    SELECT annotation_fts.rowid AS seq, a.note = '' AS bare, annotation_fts.rank AS rank
    FROM annotation_fts JOIN annotation a ON a.seq = annotation_fts.rowid
    WHERE annotation_fts MATCH @query AND ${SEEN}
    ORDER BY bare, annotation_fts.rank LIMIT @limit) best
  JOIN annotation_fts ON annotation_fts.rowid = best.seq JOIN annotation a ON a.seq = best.seq ${JOINS}
  WHERE annotation_fts MATCH @query ORDER BY best.bare, best.rank`;
export const BY_TAG = `
  SELECT ${HIT}, a.quote, a.note FROM annotation_tag g JOIN annotation a ON a.id = g.annotation_id ${JOINS} WHERE g.tag = @tag AND ${SEEN} ORDER BY a.created_at DESC LIMIT @limit`;

type Values = Readonly<Record<string, string | number>>;
export const passages = (db: Db, values: Values): PassageRow[] => db.all<PassageRow>(PASSAGES, values as never);
export const annotations = (db: Db, values: Values): AnnotationHitRow[] => db.all<AnnotationHitRow>(ANNOTATIONS, values as never);
export const byTag = (db: Db, values: Values): AnnotationHitRow[] => db.all<AnnotationHitRow>(BY_TAG, values as never);
