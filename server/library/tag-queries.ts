import type { UsedTag } from '@avrelle/core/gather';
import { renameTagInNote } from '@avrelle/core/markdown';
import { renameTagIn } from '@avrelle/core/query';
import type { TagCount, PersonId, SourceId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { searchesOf, updateSearch } from './queries';

/** The tag, or one beneath it: from `tag/` up to what follows the slash. */
const BENEATH = "(tag = @from OR (tag >= @from || '/' AND tag < @from || '0'))";
/** The annotations of one's own that bear a tag or one beneath it. */
const MINE = 'annotation_id IN (SELECT a.id FROM annotation a WHERE a.author_id = @me AND a.deleted_at IS NULL)';
/** The same with those that were deleted: what is brought back bears the new name. */
const EVER_MINE = 'annotation_id IN (SELECT a.id FROM annotation a WHERE a.author_id = @me)';
/** As lists show them: of what was deleted nothing counts, though it is renamed as well. */
const SEEN = 'source_id IN (SELECT source_id FROM source_visible WHERE person_id = @me)';

export const TAG_COUNTS = `
  SELECT tag, count(*) AS count FROM (
    SELECT t.tag, t.source_id FROM source_tag t WHERE t.person_id = @me AND t.${SEEN}
    UNION
    SELECT t.tag, a.source_id FROM annotation a JOIN annotation_tag t ON t.annotation_id = a.id
      WHERE a.author_id = @me AND a.deleted_at IS NULL AND a.${SEEN})
  GROUP BY tag ORDER BY count DESC, tag`;
const TAG_USES = `SELECT
  (SELECT count(DISTINCT source_id) FROM source_tag WHERE person_id = @me AND ${BENEATH} AND ${SEEN}) AS sources,
  (SELECT count(DISTINCT annotation_id) FROM annotation_tag WHERE ${BENEATH} AND annotation_id IN (
    SELECT a.id FROM annotation a WHERE a.author_id = @me AND a.deleted_at IS NULL AND a.${SEEN})) AS annotations`;
const TAGS_BENEATH = `
  SELECT DISTINCT tag FROM (
    SELECT tag FROM source_tag WHERE person_id = @me AND ${BENEATH}
    UNION SELECT tag FROM annotation_tag WHERE ${BENEATH} AND ${MINE})
  WHERE tag <> @from ORDER BY tag`;
const HAS_TAG = `
  SELECT 1 AS one FROM source_tag WHERE person_id = @me AND tag = @tag
  UNION SELECT 1 FROM annotation_tag WHERE tag = @tag AND ${MINE}`;
/** One's own tags: on how many sources and marks each stands, and on how many sources of the same site or author as one. */
export const USED_TAGS = `
  SELECT tag, count(*) AS uses, sum(near) AS near FROM (
    SELECT t.tag, CASE WHEN s.id <> o.id AND ((s.site <> '' AND s.site = o.site)
        OR (s.author <> '' AND s.author = o.author)) THEN 1 ELSE 0 END AS near
      FROM source_tag t JOIN source s ON s.id = t.source_id JOIN source o ON o.id = @source WHERE t.person_id = @me
    UNION ALL
    SELECT t.tag, 0 FROM annotation a JOIN annotation_tag t ON t.annotation_id = a.id
      WHERE a.author_id = @me AND a.deleted_at IS NULL)
  GROUP BY tag`;

const SOURCE_TAGS = `SELECT source_id AS id, tag, added_at AS at FROM source_tag WHERE person_id = @me AND ${BENEATH}`;
const DROP_SOURCE_TAGS = `DELETE FROM source_tag WHERE person_id = @me AND ${BENEATH}`;
const ADD_SOURCE_TAG = `
  INSERT INTO source_tag (person_id, source_id, tag, added_at) VALUES (@me, @id, @tag, @at) ON CONFLICT DO NOTHING`;
const ANNOTATION_TAGS = `SELECT annotation_id AS id, tag, added_at AS at FROM annotation_tag WHERE ${BENEATH} AND ${EVER_MINE}`;
const DROP_ANNOTATION_TAGS = `DELETE FROM annotation_tag WHERE ${BENEATH} AND ${EVER_MINE}`;
const ADD_ANNOTATION_TAG =
  'INSERT INTO annotation_tag (annotation_id, tag, added_at) VALUES (@id, @tag, @at) ON CONFLICT DO NOTHING';
const BEARING = `
  SELECT id, source_id AS sourceId, note, deleted_at AS deletedAt FROM annotation
  WHERE id IN (SELECT annotation_id FROM annotation_tag WHERE ${BENEATH} AND ${EVER_MINE})`;
/** Whoever deleted one and takes that back goes by the version it had then. */
const WRITE_NOTE = `
  UPDATE annotation SET note = @note, version = version + (deleted_at IS NULL), updated_at = @now WHERE id = @id`;

const TINTS_OF = 'SELECT tag, tint FROM tag_tint WHERE person_id = @me';
const SET_TINT = `
  INSERT INTO tag_tint (person_id, tag, tint) VALUES (@me, @tag, @tint)
  ON CONFLICT (person_id, tag) DO UPDATE SET tint = @tint`;
const DROP_TINT = 'DELETE FROM tag_tint WHERE person_id = @me AND tag = @tag';
const TINTS_BENEATH = `SELECT tag, tint FROM tag_tint WHERE person_id = @me AND ${BENEATH}`;
const DROP_TINTS = `DELETE FROM tag_tint WHERE person_id = @me AND ${BENEATH}`;
/** What a tag becomes keeps the tint it has. */
const KEEP_TINT = 'INSERT INTO tag_tint (person_id, tag, tint) VALUES (@me, @tag, @tint) ON CONFLICT DO NOTHING';

export const tagCounts = (db: Db, me: PersonId): TagCount[] => db.all<TagCount>(TAG_COUNTS, { me });
export const usedTags = (db: Db, me: PersonId, source: string): UsedTag[] => db.all<UsedTag>(USED_TAGS, { me, source });
export const tagUses = (db: Db, me: PersonId, from: string) =>
  db.all<{ sources: number; annotations: number }>(TAG_USES, { me, from })[0]!;
export const tagsBeneath = (db: Db, me: PersonId, from: string): string[] =>
  db.all<{ tag: string }>(TAGS_BENEATH, { me, from }).map((t) => t.tag);
export const hasTag = (db: Db, me: PersonId, tag: string): boolean => db.all(HAS_TAG, { me, tag }).length > 0;

export const tintsOf = (db: Db, me: PersonId): Record<string, string> =>
  Object.fromEntries(db.all<{ tag: string; tint: string }>(TINTS_OF, { me }).map(({ tag, tint }) => [tag, tint]));
export const setTint = (db: Db, me: PersonId, tag: string, tint: string | null): number =>
  tint === null ? db.run(DROP_TINT, { me, tag }) : db.run(SET_TINT, { me, tag, tint });

interface Bearing {
  readonly id: string;
  readonly sourceId: SourceId;
  readonly note: string;
  readonly deletedAt: string | null;
}

interface Borne {
  readonly id: string;
  readonly tag: string;
  readonly at: string;
}

/** What a tag was called, and is to be called. */
export interface NewName {
  readonly from: string;
  readonly to: string;
}

/** What a tag is called after `from` was given the name `to`. */
export const renamed = (tag: string, from: string, to: string): string => to + tag.slice(from.length);

/**
 * Gives a tag and those beneath it another name, or takes them away (`to` empty): on sources and marks, in the words of
 * notes, in saved searches, with their tints. Gives the marks it changed. Everything that bears an old name is taken off
 * before a new one is put on: a new name may be an old one of another.
 */
export function changeTag(
  db: Db,
  me: PersonId,
  { from, to }: NewName,
  now: string,
): { id: string; sourceId: SourceId }[] {
  const bearing = db.all<Bearing>(BEARING, { me, from });
  const there = bearing.filter((a) => a.deletedAt === null);
  const onSources = db.all<Borne>(SOURCE_TAGS, { me, from });
  const onMarks = db.all<Borne>(ANNOTATION_TAGS, { me, from });
  const tints = db.all<{ tag: string; tint: string }>(TINTS_BENEATH, { me, from });
  for (const sql of [DROP_SOURCE_TAGS, DROP_ANNOTATION_TAGS, DROP_TINTS]) db.run(sql, { me, from });
  for (const { id, note } of bearing) db.run(WRITE_NOTE, { id, note: renameTagInNote(note, from, to), now });
  if (to === '') return there;
  for (const { id, tag, at } of onSources) db.run(ADD_SOURCE_TAG, { me, id, tag: renamed(tag, from, to), at });
  for (const { id, tag, at } of onMarks) db.run(ADD_ANNOTATION_TAG, { id, tag: renamed(tag, from, to), at });
  for (const { tag, tint } of tints) db.run(KEEP_TINT, { me, tag: renamed(tag, from, to), tint });
  renameInSearches(db, me, from, to);
  return there;
}

function renameInSearches(db: Db, me: PersonId, from: string, to: string): void {
  for (const search of searchesOf(db, me)) {
    const query = renameTagIn(search.query, from, to);
    if (search.owned === 1 && query !== search.query) updateSearch(db, me, search.id, { ...search, query });
  }
}
