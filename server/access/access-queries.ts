import type { Standing, Thing } from '@avrelle/core/api';
import type { ClassRole, ClassId, PersonId, SourceId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { practises } from './visible-queries';

/** Of a thing, what `@me` is to it and whose it is; no row where it is nothing to them. Deleted things have none. */
interface Row {
  readonly standing: Standing;
  readonly owner: string;
}

const SOURCE = `
  SELECT CASE WHEN s.owner_id = @me THEN 'owner' ELSE 'reader' END AS standing, p.name AS owner
  FROM source s JOIN person p ON p.id = s.owner_id
  WHERE s.id = @id AND EXISTS (SELECT 1 FROM source_visible w WHERE w.person_id = @me AND w.source_id = s.id)`;
const DELETED_SOURCE = `
  SELECT 'owner' AS standing, '' AS owner FROM source
  WHERE id = @id AND owner_id = @me AND deleted_at IS NOT NULL`;
const VERSION = `
  SELECT 'reader' AS standing, '' AS owner FROM source_version v
  WHERE v.id = @id AND EXISTS (SELECT 1 FROM source_visible w WHERE w.person_id = @me AND w.source_id = v.source_id)`;
const COLLECTION = `
  SELECT CASE WHEN c.owner_id = @me THEN 'owner' WHEN c.may = 'add' THEN 'contributor' ELSE 'reader' END AS standing,
    p.name AS owner
  FROM collection c JOIN person p ON p.id = c.owner_id
  WHERE c.id = @id AND EXISTS (
    SELECT 1 FROM collection_visible w WHERE w.person_id = @me AND w.collection_id = c.id)`;
const SAVED_SEARCH = `
  SELECT CASE WHEN s.owner_id = @me THEN 'owner' ELSE 'reader' END AS standing, p.name AS owner
  FROM saved_search s JOIN person p ON p.id = s.owner_id
  WHERE s.id = @id AND (s.owner_id = @me OR EXISTS (
    SELECT 1 FROM membership m WHERE m.class_id = s.class_id AND m.person_id = @me))`;
const CLASS = `SELECT role AS standing, '' AS owner FROM membership WHERE class_id = @id AND person_id = @me`;
/** The members of a deleted class are set aside with what they were. */
const DELETED_CLASS = `
  SELECT 'teacher' AS standing, '' AS owner FROM class c JOIN former_membership m ON m.class_id = c.id
  WHERE c.id = @id AND m.person_id = @me AND m.role = 'teacher' AND c.deleted_at IS NOT NULL`;
const KINDS = `
  SELECT 'owner' AS standing, '' AS owner WHERE @id = @me
  UNION ALL
  SELECT CASE WHEN role = 'student' THEN 'reader' ELSE 'owner' END, '' FROM membership
  WHERE class_id = @id AND person_id = @me`;
/** What nobody but its owner sees. */
const owned = (table: 'study_note' | 'card', deleted: 'NULL' | 'NOT NULL'): string => `
  SELECT 'owner' AS standing, '' AS owner FROM ${table}
  WHERE id = @id AND owner_id = @me AND deleted_at IS ${deleted}`;
const CARD = `
  SELECT CASE WHEN c.owner_id = @me THEN 'owner' ELSE 'learner' END AS standing, p.name AS owner
  FROM card_memory m JOIN card c ON c.id = m.card_id JOIN person p ON p.id = c.owner_id
  WHERE m.person_id = @me AND m.card_id = @id AND ${practises('c')}`;
const own = (table: 'job' | 'draft' | 'feed' | 'batch'): string =>
  `SELECT 'owner' AS standing, '' AS owner FROM ${table} WHERE id = @id AND person_id = @me`;

const OF: Readonly<Record<Thing, string>> = {
  source: SOURCE,
  'deleted source': DELETED_SOURCE,
  version: VERSION,
  collection: COLLECTION,
  'saved search': SAVED_SEARCH,
  class: CLASS,
  'deleted class': DELETED_CLASS,
  kinds: KINDS,
  job: own('job'),
  draft: own('draft'),
  feed: own('feed'),
  list: own('batch'),
  'study note': owned('study_note', 'NULL'),
  'deleted study note': owned('study_note', 'NOT NULL'),
  card: CARD,
  'deleted card': owned('card', 'NOT NULL'),
};

/** What somebody is to a thing; undefined where it is nothing to them. */
export const standingOf = (db: Db, thing: Thing, me: PersonId, id: string): Row | undefined =>
  db.get<Row>(OF[thing], { me, id });

export const canRead = (db: Db, personId: PersonId, sourceId: SourceId): boolean =>
  standingOf(db, 'source', personId, sourceId) !== undefined;
/** True for a source this person owned and deleted. */
export const wasOwned = (db: Db, personId: PersonId, sourceId: SourceId): boolean =>
  standingOf(db, 'deleted source', personId, sourceId) !== undefined;
export const roleIn = (db: Db, classId: ClassId, personId: PersonId): ClassRole | undefined =>
  standingOf(db, 'class', personId, classId)?.standing as ClassRole | undefined;
export const isMember = (db: Db, classId: ClassId, personId: PersonId): boolean =>
  roleIn(db, classId, personId) !== undefined;
