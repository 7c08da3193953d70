import type {
  CollectionOrder,
  CollectionPut,
  CollectionRow,
  DeletedSource,
  ReadingState,
  ClassId,
  PersonId,
  CollectionId,
  SourceId,
} from '@avrelle/core/wire';
import type { Db } from '../db/database';

export const STATE_COUNTS = `
  SELECT coalesce(h.state, 'to_read') AS state, count(DISTINCT v.source_id) AS count FROM source_visible v LEFT JOIN shelf h ON h.person_id = @me AND h.source_id = v.source_id
  WHERE v.person_id = @me GROUP BY 1`;
const COLLECTION = `c.id, c.name, (SELECT o.id FROM collection o WHERE o.id = c.parent_id AND o.deleted_at IS NULL) AS parentId, c.class_id AS classId, k.name AS className, c.may, c.owner_id = @me AS owned, p.name AS ownerName, c.version,
  (SELECT count(*) FROM collection_item i WHERE i.collection_id = c.id AND EXISTS (SELECT 1 FROM source_visible v WHERE v.person_id = @me AND v.source_id = i.source_id)) AS count`;
const COLLECTION_FROM =
  'FROM collection_visible w JOIN collection c ON c.id = w.collection_id JOIN person p ON p.id = c.owner_id LEFT JOIN class k ON k.id = c.class_id';
export const COLLECTIONS = `SELECT ${COLLECTION} ${COLLECTION_FROM} WHERE w.person_id = @me ORDER BY owned DESC, c.position, c.created_at`;
export const COLLECTION_ONE = `SELECT ${COLLECTION}, c.sections ${COLLECTION_FROM} WHERE w.person_id = @me AND c.id = @id`;
const ITEMS = 'SELECT source_id AS id, section FROM collection_item WHERE collection_id = ? ORDER BY section, position';
export const HOLDING =
  'SELECT w.collection_id AS id FROM collection_item i JOIN collection_visible w ON w.collection_id = i.collection_id AND w.person_id = @me WHERE i.source_id = @source';
const INSERT =
  'INSERT INTO collection (id, owner_id, name, parent_id, class_id, may, position, created_at) VALUES (@id, @me, @name, @parentId, @classId, @may, (SELECT coalesce(max(position), 0) + 1 FROM collection WHERE owner_id = @me), @now) ON CONFLICT (id) DO NOTHING';
const UPDATE =
  'UPDATE collection SET name = @name, parent_id = @parentId, class_id = @classId, may = @may, version = version + 1 WHERE id = @id AND owner_id = @me AND version = @version';
const SET_COLLECTION_DELETED =
  'UPDATE collection SET deleted_at = ?, version = version + 1 WHERE id = ? AND owner_id = ?';
const IS_DELETED_COLLECTION =
  'SELECT 1 AS one FROM collection WHERE id = ? AND owner_id = ? AND deleted_at IS NOT NULL';
const HAS_CHILDREN = 'SELECT 1 AS one FROM collection WHERE parent_id = ? AND deleted_at IS NULL LIMIT 1';
/** One that came to hold others, or came to stand in one, meanwhile: none stands two deep. */
const SET_FREE = `UPDATE collection SET parent_id = NULL, version = version + 1
  WHERE (parent_id = @id AND EXISTS (SELECT 1 FROM collection d WHERE d.parent_id = collection.id AND d.deleted_at IS NULL))
    OR (id = @id AND EXISTS (SELECT 1 FROM collection o WHERE o.id = collection.parent_id AND o.parent_id IS NOT NULL))
    OR (id = @id AND parent_id IS NOT NULL AND EXISTS (SELECT 1 FROM collection d WHERE d.parent_id = @id AND d.deleted_at IS NULL))`;
const FREE_OF_EXPIRED =
  'UPDATE collection SET parent_id = NULL WHERE parent_id IN (SELECT id FROM collection WHERE deleted_at < ?)';
const REMOVE_EXPIRED_COLLECTIONS = 'DELETE FROM collection WHERE deleted_at < ?';
const SET_SECTIONS = 'UPDATE collection SET sections = ?, version = version + 1 WHERE id = ? AND version = ?';
const PLACE = 'UPDATE collection_item SET section = ?, position = ? WHERE collection_id = ? AND source_id = ?';
const ADD = `INSERT INTO collection_item (collection_id, source_id, section, position, added_by, added_at) VALUES (@id, @source, @section, (SELECT coalesce(max(position), -1) + 1 FROM collection_item WHERE collection_id = @id AND section = @section), @me, @now) ON CONFLICT DO NOTHING`;
const TAKE = 'DELETE FROM collection_item WHERE collection_id = ? AND source_id = ?';
const ITEM = 'SELECT section, position FROM collection_item WHERE collection_id = ? AND source_id = ?';
const MAKE_ROOM =
  'UPDATE collection_item SET position = position + 1 WHERE collection_id = ? AND section = ? AND position >= ?';
const MOVE = 'UPDATE collection_item SET position = ? WHERE collection_id = ? AND source_id = ?';
const TOUCH = 'UPDATE collection SET version = version + 1 WHERE id = ?';
const PLACE_COLLECTION = 'UPDATE collection SET position = ? WHERE id = ? AND owner_id = ?';

export const SEARCHES = `
  SELECT q.id, q.name, q.query, q.class_id AS classId, q.owner_id = @me AS owned, p.name AS ownerName, q.version FROM saved_search q JOIN person p ON p.id = q.owner_id
  WHERE q.id IN (SELECT id FROM saved_search WHERE owner_id = @me UNION SELECT x.id FROM membership m JOIN saved_search x ON x.class_id = m.class_id WHERE m.person_id = @me) ORDER BY owned DESC, q.position`;
const INSERT_SEARCH =
  'INSERT INTO saved_search (id, owner_id, class_id, name, query, position) VALUES (@id, @me, @classId, @name, @query, (SELECT coalesce(max(position), 0) + 1 FROM saved_search WHERE owner_id = @me)) ON CONFLICT (id) DO NOTHING';
const UPDATE_SEARCH =
  'UPDATE saved_search SET name = @name, query = @query, class_id = @classId, version = version + 1 WHERE id = @id AND owner_id = @me AND version = @version';
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
const REMOVE_ANNOTATIONS = 'DELETE FROM annotation WHERE source_id = ?';
const REMOVE_SOURCE = 'DELETE FROM source WHERE id = ?';
const REMOVE_VERSIONS = 'DELETE FROM source_version WHERE source_id = ?';
const REMOVE_JOBS = 'DELETE FROM job WHERE source_id = ?';

export const stateCounts = (db: Db, me: PersonId) =>
  db.all<{ state: ReadingState; count: number }>(STATE_COUNTS, { me });

type CollectionDbRow = Omit<CollectionRow, 'owned'> & { readonly owned: number };
export const collectionsOf = (db: Db, me: PersonId): CollectionRow[] =>
  db.all<CollectionDbRow>(COLLECTIONS, { me }).map((c) => ({ ...c, owned: c.owned === 1 }));
export function collectionFor(
  db: Db,
  me: PersonId,
  id: string,
): (CollectionRow & { readonly sections: readonly string[] }) | undefined {
  const [row] = db.all<CollectionDbRow & { sections: string }>(COLLECTION_ONE, { me, id });
  return row && { ...row, owned: row.owned === 1, sections: JSON.parse(row.sections) as string[] };
}
/** Collections that somebody sees and that hold a source. */
export const collectionsHolding = (db: Db, me: PersonId, source: string): string[] =>
  db.all<{ id: string }>(HOLDING, { me, source }).map((c) => c.id);
export const itemsOf = (db: Db, id: string) => db.all<{ id: string; section: number }>(ITEMS, id);
export const hasCollections = (db: Db, id: string): boolean => db.get(HAS_CHILDREN, id) !== undefined;
export const insertCollection = (
  db: Db,
  { id, me }: { readonly id: CollectionId; readonly me: PersonId },
  { name, parentId, classId, may }: CollectionPut,
  now: string,
): boolean =>
  db.run(INSERT, { id, me, name, parentId: parentId ?? null, classId: classId ?? null, may: may ?? 'read', now }) > 0;
/** False when it is at another version by now. */
export const updateCollection = (
  db: Db,
  me: PersonId,
  id: string,
  { version, name, parentId, classId, may }: CollectionPut,
): boolean =>
  db.run(UPDATE, {
    id,
    me,
    version: version ?? 0,
    name,
    parentId: parentId ?? null,
    classId: classId ?? null,
    may: may ?? 'read',
  }) > 0;
/** Those inside it stay, one level up. */
export const deleteCollection = (db: Db, me: PersonId, id: string, now: string): boolean =>
  db.run(SET_COLLECTION_DELETED, now, id, me) > 0;
/** With those inside it, as it was. False where there is none of one's own. */
export function restoreCollection(db: Db, me: PersonId, id: string): boolean {
  if (db.get(IS_DELETED_COLLECTION, id, me) === undefined) return false;
  db.run(SET_FREE, { id });
  return db.run(SET_COLLECTION_DELETED, null, id, me) > 0;
}
export function removeExpiredCollections(db: Db, before: string): void {
  db.run(FREE_OF_EXPIRED, before);
  db.run(REMOVE_EXPIRED_COLLECTIONS, before);
}
/** False when it is at another version by now. */
export function orderCollection(db: Db, id: string, { version, sections, was, items }: CollectionOrder): boolean {
  const before = itemsOf(db, id);
  if (db.run(SET_SECTIONS, JSON.stringify(sections), id, version) === 0) return false;
  const seen = new Set(items.map((item) => item.sourceId));
  const unseen = before.map((item, position) => ({ ...item, position })).filter((item) => !seen.has(item.id));
  moveUnseen(db, id, unseen, was ?? [...sections.keys()]);
  items.forEach(({ sourceId, section }, position) =>
    db.run(PLACE, Math.min(section, sections.length - 1), position, id, sourceId),
  );
  return true;
}
/** What whoever ordered it may not read goes with its section, or up to the next above that is left. */
function moveUnseen(
  db: Db,
  id: string,
  unseen: readonly { readonly id: SourceId; readonly section: number; readonly position: number }[],
  was: readonly (number | null)[],
): void {
  for (const item of unseen) {
    let section = item.section;
    while (section >= 0 && !was.includes(section)) section--;
    db.run(PLACE, section < 0 ? -1 : was.indexOf(section), item.position, id, item.id);
  }
}

/** A source in a section of a collection. */
interface Placed {
  readonly id: CollectionId;
  readonly source: SourceId;
  readonly section: number;
}

export const addToCollection = (db: Db, me: PersonId, { id, source, section }: Placed, now: string): boolean =>
  db.run(ADD, { id, source, section, me, now }) > 0;
/** Where a source stands in a collection; undefined where it is not in it. */
export const itemIn = (db: Db, id: string, source: string) =>
  db.get<{ section: number; position: number }>(ITEM, id, source);
/** Before what stands at a place of its section. */
export function moveInCollection(db: Db, { id, source, section }: Placed, position: number): void {
  db.run(MAKE_ROOM, id, section, position);
  db.run(MOVE, position, id, source);
}
export const takeFromCollection = (db: Db, id: string, source: string): boolean => db.run(TAKE, id, source) > 0;
export const collectionChanged = (db: Db, id: string): number => db.run(TOUCH, id);
export const placeCollections = (db: Db, me: PersonId, ids: readonly string[]): void =>
  ids.forEach((id, position) => db.run(PLACE_COLLECTION, position, id, me));

export interface SearchRow {
  readonly id: string;
  readonly name: string;
  readonly query: string;
  readonly classId: ClassId | null;
  readonly owned: number;
  readonly ownerName: string;
  readonly version: number;
}
export const searchesOf = (db: Db, me: PersonId): SearchRow[] => db.all<SearchRow>(SEARCHES, { me });
interface SearchPut {
  readonly version?: number | undefined;
  readonly name: string;
  readonly query: string;
  readonly classId?: ClassId | null | undefined;
}
export const insertSearch = (db: Db, me: PersonId, id: string, { name, query, classId = null }: SearchPut): boolean =>
  db.run(INSERT_SEARCH, { id, me, name, query, classId }) > 0;
export const updateSearch = (
  db: Db,
  me: PersonId,
  id: string,
  { version = 0, name, query, classId = null }: SearchPut,
): boolean => db.run(UPDATE_SEARCH, { id, me, version, name, query, classId }) > 0;
export const removeSearch = (db: Db, me: PersonId, id: string): boolean => db.run(REMOVE_SEARCH, id, me) > 0;
export const placeSearches = (db: Db, me: PersonId, ids: readonly string[]): void =>
  ids.forEach((id, position) => db.run(PLACE_SEARCH, position, id, me));

export const deletedOf = (db: Db, me: PersonId, since: string): DeletedSource[] =>
  db.all<DeletedSource>(DELETED, { me, since });
export const expired = (db: Db, before: string): string[] => db.all<{ id: string }>(EXPIRED, before).map((s) => s.id);
export const filesOf = (db: Db, id: string): string[] => db.all<{ hash: string }>(FILES, { id }).map((f) => f.hash);
export function removeSource(db: Db, id: string): void {
  for (const sql of [REMOVE_ANNOTATIONS, REMOVE_VERSIONS, REMOVE_SOURCE, REMOVE_JOBS]) db.run(sql, id);
}
