import { linksIn, type NoteLink } from '@avrelle/core/note';
import type { RelatedTag, TagPair, TopicNews, PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

const ONE = 'SELECT tag, text, written_at AS writtenAt, version FROM topic WHERE person_id = ? AND tag = ?';
const BENEATH =
  "SELECT tag, text, written_at AS writtenAt, version FROM topic WHERE person_id = @me AND (tag = @from OR (tag >= @from || '/' AND tag < @from || '0'))";
const INSERT = 'INSERT INTO topic (person_id, tag, text, written_at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING';
const UPDATE =
  'UPDATE topic SET text = ?, written_at = ?, version = version + 1 WHERE person_id = ? AND tag = ? AND version = ?';
const REMOVE = 'DELETE FROM topic WHERE person_id = ? AND tag = ?';
const CLEAR_LINKS = 'DELETE FROM topic_link WHERE person_id = ? AND tag = ?';
const ADD_LINK = 'INSERT INTO topic_link (person_id, tag, type, target) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING';
const LINKED = 'SELECT tag FROM topic_link WHERE type = ? AND target = ? AND person_id = ? ORDER BY tag';
/** Of what was deleted, or is not shared any more, nothing counts. */
const SEEN = 'source_id IN (SELECT source_id FROM source_visible WHERE person_id = @me)';
/** One's own tags by the sources they stand on, or on marks in. */
const MINE = `mine(tag, source_id) AS MATERIALIZED (
  SELECT tag, source_id FROM source_tag WHERE person_id = @me AND ${SEEN}
  UNION
  SELECT t.tag, a.source_id FROM annotation a JOIN annotation_tag t ON t.annotation_id = a.id WHERE a.author_id = @me AND a.deleted_at IS NULL AND a.${SEEN})`;
/** Tags beside a tag: in how many sources both stand. */
export const RELATED = `
  WITH ${MINE}
  SELECT o.tag, count(*) AS together FROM mine JOIN mine o ON o.source_id = mine.source_id AND o.tag <> mine.tag WHERE mine.tag = @tag GROUP BY o.tag ORDER BY together DESC, o.tag LIMIT 16`;
/** The same of any two of tags that are named. */
export const PAIRS = `
  WITH ${MINE}
  SELECT mine.tag AS a, o.tag AS b, count(*) AS together FROM mine JOIN mine o ON o.source_id = mine.source_id AND o.tag > mine.tag
  WHERE mine.tag IN (SELECT value FROM json_each(@tags)) AND o.tag IN (SELECT value FROM json_each(@tags)) GROUP BY 1, 2`;

const HERE = "(t.tag = @tag OR (t.tag >= @tag || '/' AND t.tag < @tag || '0'))";
const FRESH_SOURCES = `
  SELECT id FROM (SELECT t.source_id AS id FROM source_tag t WHERE t.person_id = @me AND ${HERE} AND t.added_at > @since
  UNION SELECT a.source_id FROM annotation_tag t JOIN annotation a ON a.id = t.annotation_id
    WHERE ${HERE} AND a.author_id = @me AND a.deleted_at IS NULL AND t.added_at > @since
  UNION SELECT s.id FROM source_tag t JOIN source s ON s.id = t.source_id
    WHERE t.person_id = @me AND ${HERE} AND s.kept_at > @since)
  WHERE id IN (SELECT source_id FROM source_visible WHERE person_id = @me)`;
const FRESH_ANNOTATIONS = `
  SELECT DISTINCT a.id FROM annotation_tag t JOIN annotation a ON a.id = t.annotation_id
  WHERE ${HERE} AND (t.added_at > @since OR a.created_at > @since)
    AND EXISTS (SELECT 1 FROM annotation_visible v WHERE v.person_id = @me AND v.seq = a.seq)`;

export interface TopicRow {
  readonly tag: string;
  readonly text: string;
  readonly writtenAt: string;
  readonly version: number;
}
export const topicOf = (db: Db, me: PersonId, tag: string): TopicRow | undefined => db.get<TopicRow>(ONE, me, tag);
export const topicsBeneath = (db: Db, me: PersonId, from: string): TopicRow[] =>
  db.all<TopicRow>(BENEATH, { me, from });
export const relatedTags = (db: Db, me: PersonId, tag: string): RelatedTag[] =>
  db.all<RelatedTag>(RELATED, { me, tag });
export const pairsOf = (db: Db, me: PersonId, tags: readonly string[]): TagPair[] =>
  db.all<TagPair>(PAIRS, { me, tags: JSON.stringify(tags) });
/** What bears the tag only since then. */
export function topicNews(db: Db, me: PersonId, tag: string, since: string): TopicNews {
  const ids = (sql: string): string[] => db.all<{ id: string }>(sql, { me, tag, since }).map((r) => r.id);
  return { sourceIds: ids(FRESH_SOURCES), annotationIds: ids(FRESH_ANNOTATIONS) };
}
/** Tags whose pages of one's own lead to something. */
export const topicsLeadingTo = (db: Db, me: PersonId, { type, id }: NoteLink): string[] =>
  db.all<{ tag: string }>(LINKED, type, id, me).map((t) => t.tag);

/** False when it is at another version by now; version 0 is that of a page that is not there. */
export function writeTopic(
  db: Db,
  me: PersonId,
  { tag, version, text }: { readonly tag: string; readonly version: number; readonly text: string },
  now: string,
): boolean {
  if ((version === 0 ? db.run(INSERT, me, tag, text, now) : db.run(UPDATE, text, now, me, tag, version)) === 0)
    return false;
  db.run(CLEAR_LINKS, me, tag);
  for (const { type, id } of linksIn(text)) db.run(ADD_LINK, me, tag, type, id);
  return true;
}
export const removeTopic = (db: Db, me: PersonId, tag: string): number => db.run(REMOVE, me, tag);
