import type { UsedTag } from '@avrelle/core/gather';
import type { CollectionOrder, CollectionPut, CollectionRow, DeletedSource, ReadingState, TagCount } from '@avrelle/core/wire';
import type { Db } from '../db/database';

export const TAG_COUNTS = `
  SELECT tag, count(*) AS count FROM (
    SELECT t.tag, t.source_id FROM source_tag t WHERE t.person_id = @me AND t.source_id IN (SELECT source_id FROM source_visible WHERE person_id = @me)
    UNION
    SELECT t.tag, a.source_id FROM annotation a JOIN annotation_tag t ON t.annotation_id = a.id WHERE a.author_id = @me AND a.deleted_at IS NULL AND a.source_id IN (SELECT source_id FROM source_visible WHERE person_id = @me))
  GROUP BY tag ORDER BY count DESC, tag`;
export const STATE_COUNTS = `
  SELECT coalesce(h.state, 'to_read') AS state, count(DISTINCT v.source_id) AS count FROM source_visible v LEFT JOIN shelf h ON h.person_id = @me AND h.source_id = v.source_id
  WHERE v.person_id = @me GROUP BY 1`;
const COLLECTION = `c.id, c.name, c.parent_id AS parentId, c.class_id AS classId, k.name AS className, c.may, c.owner_id = @me AS owned, p.name AS ownerName, c.version,
  (SELECT count(*) FROM collection_item i WHERE i.collection_id = c.id AND EXISTS (SELECT 1 FROM source_visible v WHERE v.person_id = @me AND v.source_id = i.source_id)) AS count`;
const COLLECTION_FROM = 'FROM collection_visible w JOIN collection c ON c.id = w.collection_id JOIN person p ON p.id = c.owner_id LEFT JOIN class k ON k.id = c.class_id';
export const COLLECTIONS = `SELECT ${COLLECTION} ${COLLECTION_FROM} WHERE w.person_id = @me ORDER BY owned DESC, c.position, c.created_at`;
export const COLLECTION_ONE = `SELECT ${COLLECTION}, c.sections ${COLLECTION_FROM} WHERE w.person_id = @me AND c.id = @id`;
const ITEMS = 'SELECT source_id AS id, section FROM collection_item WHERE collection_id = ? ORDER BY section, position';
export const HOLDING = 'SELECT w.collection_id AS id FROM collection_item i JOIN collection_visible w ON w.collection_id = i.collection_id AND w.person_id = @me WHERE i.source_id = @source';
const INSERT = 'INSERT INTO collection (id, owner_id, name, parent_id, class_id, may, position, created_at) VALUES (@id, @me, @name, @parentId, @classId, @may, (SELECT coalesce(max(position), 0) + 1 FROM collection WHERE owner_id = @me), @now) ON CONFLICT (id) DO NOTHING';
const UPDATE = 'UPDATE collection SET name = @name, parent_id = @parentId, class_id = @classId, may = @may, version = version + 1 WHERE id = @id AND owner_id = @me AND version = @version';
const REMOVE = 'DELETE FROM collection WHERE id = ? AND owner_id = ?';
const SET_FREE = 'UPDATE collection SET parent_id = NULL, version = version + 1 WHERE parent_id = ?';
const HAS_CHILDREN = 'SELECT 1 AS one FROM collection WHERE parent_id = ? LIMIT 1';
const SET_SECTIONS = 'UPDATE collection SET sections = ?, version = version + 1 WHERE id = ? AND version = ?';
const PLACE = 'UPDATE collection_item SET section = ?, position = ? WHERE collection_id = ? AND source_id = ?';
const ADD = `INSERT INTO collection_item (collection_id, source_id, section, position, added_by, added_at) VALUES (@id, @source, @section, (SELECT coalesce(max(position), -1) + 1 FROM collection_item WHERE collection_id = @id AND section = @section), @me, @now) ON CONFLICT DO NOTHING`;
const TAKE = 'DELETE FROM collection_item WHERE collection_id = ? AND source_id = ?';
const ITEM = 'SELECT section, position FROM collection_item WHERE collection_id = ? AND source_id = ?';
const MAKE_ROOM = 'UPDATE collection_item SET position = position + 1 WHERE collection_id = ? AND section = ? AND position >= ?';
const MOVE = 'UPDATE collection_item SET position = ? WHERE collection_id = ? AND source_id = ?';
const TOUCH = 'UPDATE collection SET version = version + 1 WHERE id = ?';
const PLACE_COLLECTION = 'UPDATE collection SET position = ? WHERE id = ? AND owner_id = ?';

export const SEARCHES = `
  SELECT q.id, q.name, q.query, q.class_id AS classId, q.owner_id = @me AS owned, p.name AS ownerName, q.version FROM saved_search q JOIN person p ON p.id = q.owner_id
  WHERE q.id IN (SELECT id FROM saved_search WHERE owner_id = @me UNION SELECT x.id FROM membership m JOIN saved_search x ON x.class_id = m.class_id WHERE m.person_id = @me) ORDER BY owned DESC, q.position`;
const INSERT_SEARCH = 'INSERT INTO saved_search (id, owner_id, class_id, name, query, position) VALUES (@id, @me, @classId, @name, @query, (SELECT coalesce(max(position), 0) + 1 FROM saved_search WHERE owner_id = @me)) ON CONFLICT (id) DO NOTHING';
const UPDATE_SEARCH = 'UPDATE saved_search SET name = @name, query = @query, class_id = @classId, version = version + 1 WHERE id = @id AND owner_id = @me AND version = @version';
const REMOVE_SEARCH = 'DELETE FROM saved_search WHERE id = ? AND owner_id = ?';
const PLACE_SEARCH = 'UPDATE saved_search SET position = ? WHERE id = ? AND owner_id = ?';

export const DELETED = `
  SELECT s.id, s.title, s.deleted_at AS deletedAt, (SELECT count(*) FROM annotation a WHERE a.source_id = s.id AND a.root_id IS NULL AND a.deleted_at IS NULL) AS marks
  FROM source s WHERE s.owner_id = @me AND s.deleted_at >= @since ORDER BY s.deleted_at DESC LIMIT 500`;
const EXPIRED = 'SELECT id, lead_hash FROM source WHERE deleted_at < ?';
const FILES = `
  SELECT v.snapshot_hash AS hash FROM source_version v WHERE v.source_id = @id UNION SELECT v.file_hash FROM source_version v WHERE v.source_id = @id AND v.file_hash IS NOT NULL
  UNION SELECT upload_hash FROM job WHERE source_id = @id AND upload_hash IS NOT NULL UNION SELECT transcript_hash FROM job WHERE source_id = @id AND transcript_hash IS NOT NULL
  UNION SELECT a.hash FROM version_asset a JOIN source_version v ON v.id = a.version_id WHERE v.source_id = @id UNION SELECT lead_hash FROM source WHERE id = @id AND lead_hash IS NOT NULL`;
const REMOVE_ANNOTATIONS = 'DELETE FROM annotation WHERE source_id = ?', REMOVE_SOURCE = 'DELETE FROM source WHERE id = ?', REMOVE_VERSIONS = 'DELETE FROM source_version WHERE source_id = ?', REMOVE_JOBS = 'DELETE FROM job WHERE source_id = ?';

/** The tag, or one beneath it: from `tag/` up to what follows the slash. */
const BENEATH = "(tag = @from OR (tag >= @from || '/' AND tag < @from || '0'))";
/** The annotations of one's own that bear a tag or one beneath it. */
const MINE = 'annotation_id IN (SELECT a.id FROM annotation a WHERE a.author_id = @me AND a.deleted_at IS NULL)';
/** As lists show them: of what was deleted nothing counts, though it is renamed as well. */
const SEEN = 'source_id IN (SELECT source_id FROM source_visible WHERE person_id = @me)';
const TAG_USES = `SELECT
  (SELECT count(DISTINCT source_id) FROM source_tag WHERE person_id = @me AND ${BENEATH} AND ${SEEN}) AS sources,
  (SELECT count(DISTINCT annotation_id) FROM annotation_tag WHERE ${BENEATH} AND annotation_id IN (SELECT a.id FROM annotation a WHERE a.author_id = @me AND a.deleted_at IS NULL AND a.${SEEN})) AS annotations`;
const TAGS_BENEATH = `SELECT DISTINCT tag FROM (SELECT tag FROM source_tag WHERE person_id = @me AND ${BENEATH} UNION SELECT tag FROM annotation_tag WHERE ${BENEATH} AND ${MINE}) WHERE tag <> @from ORDER BY tag`;
const HAS_TAG = 'SELECT 1 AS one FROM source_tag WHERE person_id = @me AND tag = @to UNION SELECT 1 FROM annotation_tag t JOIN annotation a ON a.id = t.annotation_id WHERE t.tag = @to AND a.author_id = @me AND a.deleted_at IS NULL';
const RENAMED = 'CASE WHEN @to = @empty THEN NULL ELSE @to || substr(tag, length(@from) + 1) END';
const CHANGED_ANNOTATIONS = `SELECT DISTINCT annotation_id AS id, a.source_id AS sourceId FROM annotation_tag JOIN annotation a ON a.id = annotation_id WHERE ${BENEATH} AND ${MINE}`;
const ADD_SOURCE_TAGS = `INSERT INTO source_tag (person_id, source_id, tag) SELECT person_id, source_id, ${RENAMED} FROM source_tag WHERE person_id = @me AND ${BENEATH} AND @to <> @empty ON CONFLICT DO NOTHING`;
const ADD_ANNOTATION_TAGS = `INSERT INTO annotation_tag (annotation_id, tag) SELECT annotation_id, ${RENAMED} FROM annotation_tag WHERE ${BENEATH} AND ${MINE} AND @to <> @empty ON CONFLICT DO NOTHING`;
/** One's own tags: on how many sources and marks each stands, and on how many sources of the same site or author as one. */
export const USED_TAGS = `
  SELECT tag, count(*) AS uses, sum(near) AS near FROM (
    SELECT t.tag, CASE WHEN s.id <> o.id AND ((s.site <> '' AND s.site = o.site) OR (s.author <> '' AND s.author = o.author)) THEN 1 ELSE 0 END AS near
      FROM source_tag t JOIN source s ON s.id = t.source_id JOIN source o ON o.id = @source WHERE t.person_id = @me
    UNION ALL
    SELECT t.tag, 0 FROM annotation a JOIN annotation_tag t ON t.annotation_id = a.id WHERE a.author_id = @me AND a.deleted_at IS NULL)
  GROUP BY tag`;
const TOUCH_ANNOTATIONS = `UPDATE annotation SET version = version + 1, updated_at = @now WHERE id IN (SELECT annotation_id FROM annotation_tag WHERE ${BENEATH} AND ${MINE})`;
const DROP_SOURCE_TAGS = `DELETE FROM source_tag WHERE person_id = @me AND ${BENEATH}`;
const DROP_ANNOTATION_TAGS = `DELETE FROM annotation_tag WHERE ${BENEATH} AND ${MINE}`;

const TINTS_OF = 'SELECT tag, tint FROM tag_tint WHERE person_id = @me';
const SET_TINT = 'INSERT INTO tag_tint (person_id, tag, tint) VALUES (@me, @tag, @tint) ON CONFLICT (person_id, tag) DO UPDATE SET tint = @tint';
const DROP_TINT = 'DELETE FROM tag_tint WHERE person_id = @me AND tag = @tag';
/** What a tag becomes keeps the tint it has. */
const MOVE_TINTS = `INSERT INTO tag_tint (person_id, tag, tint) SELECT person_id, ${RENAMED}, tint FROM tag_tint WHERE person_id = @me AND ${BENEATH} AND @to <> @empty ON CONFLICT DO NOTHING`;
const DROP_TINTS = `DELETE FROM tag_tint WHERE person_id = @me AND ${BENEATH}`;

type Named = Readonly<Record<string, string | number | null>>;
const all = <T>(db: Db, sql: string, values: Named): T[] => db.all<T>(sql, values as never);
const run = (db: Db, sql: string, values: Named): number => db.run(sql, values as never);

export const tagCounts = (db: Db, me: string): TagCount[] => all<TagCount>(db, TAG_COUNTS, { me });
export const stateCounts = (db: Db, me: string) => all<{ state: ReadingState; count: number }>(db, STATE_COUNTS, { me });

type CollectionDbRow = Omit<CollectionRow, 'owned'> & { readonly owned: number };
export const collectionsOf = (db: Db, me: string): CollectionRow[] => all<CollectionDbRow>(db, COLLECTIONS, { me }).map((c) => ({ ...c, owned: c.owned === 1 }));
export function collectionFor(db: Db, me: string, id: string): (CollectionRow & { readonly sections: readonly string[] }) | undefined {
  const [row] = all<CollectionDbRow & { sections: string }>(db, COLLECTION_ONE, { me, id });
  return row && { ...row, owned: row.owned === 1, sections: JSON.parse(row.sections) as string[] };
}
/** Collections that somebody sees and that hold a source. */
export const collectionsHolding = (db: Db, me: string, source: string): string[] => all<{ id: string }>(db, HOLDING, { me, source }).map((c) => c.id);
export const itemsOf = (db: Db, id: string) => db.all<{ id: string; section: number }>(ITEMS, id);
export const hasCollections = (db: Db, id: string): boolean => db.get(HAS_CHILDREN, id) !== undefined;
export const insertCollection = (db: Db, me: string, id: string, { name, parentId, classId, may }: CollectionPut, now: string): boolean => run(db, INSERT, { id, me, name, parentId: parentId ?? null, classId: classId ?? null, may: may ?? 'read', now }) > 0;
/** False when it is at another version by now. */
export const updateCollection = (db: Db, me: string, id: string, { version, name, parentId, classId, may }: CollectionPut): boolean => run(db, UPDATE, { id, me, version: version ?? 0, name, parentId: parentId ?? null, classId: classId ?? null, may: may ?? 'read' }) > 0;
/** Those inside it stay, one level up. */
export function removeCollection(db: Db, me: string, id: string): boolean {
  db.run(SET_FREE, id);
  return db.run(REMOVE, id, me) > 0;
}
/** False when it is at another version by now. */
export function orderCollection(db: Db, id: string, { version, sections, was, items }: CollectionOrder): boolean {
  const before = itemsOf(db, id);
  if (db.run(SET_SECTIONS, JSON.stringify(sections), id, version) === 0) return false;
  moveUnseen(db, id, before, new Set(items.map((item) => item.sourceId)), was ?? [...sections.keys()]);
  items.forEach(({ sourceId, section }, position) => db.run(PLACE, Math.min(section, sections.length - 1), position, id, sourceId));
  return true;
}
/** What whoever ordered it may not read goes with its section, or up to the next above that is left. */
function moveUnseen(db: Db, id: string, before: ReturnType<typeof itemsOf>, seen: ReadonlySet<string>, was: readonly (number | null)[]): void {
  before.forEach((item, position) => {
    if (seen.has(item.id)) return;
    let section = item.section;
    while (section >= 0 && !was.includes(section)) section--;
    db.run(PLACE, section < 0 ? -1 : was.indexOf(section), position, id, item.id);
  });
}

export const addToCollection = (db: Db, me: string, id: string, source: string, section: number, now: string): boolean => run(db, ADD, { id, source, section, me, now }) > 0;
/** Where a source stands in a collection; undefined where it is not in it. */
export const itemIn = (db: Db, id: string, source: string) => db.get<{ section: number; position: number }>(ITEM, id, source);
/** Before what stands at a place of its section. */
export function moveInCollection(db: Db, id: string, source: string, section: number, position: number): void {
  db.run(MAKE_ROOM, id, section, position);
  db.run(MOVE, position, id, source);
}
export const takeFromCollection = (db: Db, id: string, source: string): boolean => db.run(TAKE, id, source) > 0;
export const collectionChanged = (db: Db, id: string): number => db.run(TOUCH, id);
export const placeCollections = (db: Db, me: string, ids: readonly string[]): void => ids.forEach((id, position) => db.run(PLACE_COLLECTION, position, id, me));

export interface SearchRow { readonly id: string; readonly name: string; readonly query: string; readonly classId: string | null; readonly owned: number; readonly ownerName: string; readonly version: number }
export const searchesOf = (db: Db, me: string): SearchRow[] => all<SearchRow>(db, SEARCHES, { me });
interface SearchPut { readonly version?: number | undefined; readonly name: string; readonly query: string; readonly classId?: string | null | undefined }
export const insertSearch = (db: Db, me: string, id: string, { name, query, classId = null }: SearchPut): boolean => run(db, INSERT_SEARCH, { id, me, name, query, classId }) > 0;
export const updateSearch = (db: Db, me: string, id: string, { version = 0, name, query, classId = null }: SearchPut): boolean => run(db, UPDATE_SEARCH, { id, me, version, name, query, classId }) > 0;
export const removeSearch = (db: Db, me: string, id: string): boolean => db.run(REMOVE_SEARCH, id, me) > 0;
export const placeSearches = (db: Db, me: string, ids: readonly string[]): void => ids.forEach((id, position) => db.run(PLACE_SEARCH, position, id, me));

export const deletedOf = (db: Db, me: string, since: string): DeletedSource[] => all<DeletedSource>(db, DELETED, { me, since });
export const expired = (db: Db, before: string): string[] => db.all<{ id: string }>(EXPIRED, before).map((s) => s.id);
export const filesOf = (db: Db, id: string): string[] => all<{ hash: string }>(db, FILES, { id }).map((f) => f.hash);
export function removeSource(db: Db, id: string): void {
  for (const sql of [REMOVE_ANNOTATIONS, REMOVE_VERSIONS, REMOVE_SOURCE, REMOVE_JOBS]) db.run(sql, id);
}

const tagValues = (me: string, from: string, to: string): Named => ({ me, from, to, empty: '' });
export const tagUses = (db: Db, me: string, from: string) => all<{ sources: number; annotations: number }>(db, TAG_USES, tagValues(me, from, ''))[0]!;
export const tagsBeneath = (db: Db, me: string, from: string): string[] => all<{ tag: string }>(db, TAGS_BENEATH, tagValues(me, from, '')).map((t) => t.tag);
export const usedTags = (db: Db, me: string, source: string): UsedTag[] => all<UsedTag>(db, USED_TAGS, { me, source });
export const hasTag = (db: Db, me: string, to: string): boolean => all(db, HAS_TAG, { me, to }).length > 0;
export const tintsOf = (db: Db, me: string): Record<string, string> => Object.fromEntries(all<{ tag: string; tint: string }>(db, TINTS_OF, { me }).map(({ tag, tint }) => [tag, tint]));
export const setTint = (db: Db, me: string, tag: string, tint: string | null): number => (tint === null ? run(db, DROP_TINT, { me, tag }) : run(db, SET_TINT, { me, tag, tint }));
/** One's own annotations that a change of a tag touches. */
export const bearing = (db: Db, me: string, from: string) => all<{ id: string; sourceId: string }>(db, CHANGED_ANNOTATIONS, tagValues(me, from, ''));
/** Not to one beneath itself. */
export function changeTag(db: Db, me: string, from: string, to: string, now: string): void {
  run(db, TOUCH_ANNOTATIONS, { ...tagValues(me, from, to), now });
  for (const sql of [ADD_SOURCE_TAGS, ADD_ANNOTATION_TAGS, MOVE_TINTS, DROP_SOURCE_TAGS, DROP_ANNOTATION_TAGS, DROP_TINTS]) run(db, sql, tagValues(me, from, to));
}
