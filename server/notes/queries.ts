import type { NoteLink } from '@avrelle/core/note';
import type { Linked, Person, AnnotationId, PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { KIND_COLUMNS, KIND_JOIN, kindFrom, type KindRow } from '../legend/queries';

const CLEAR = 'DELETE FROM annotation_link WHERE annotation_id = ?';
const ADD = 'INSERT INTO annotation_link (annotation_id, type, target) VALUES (?, ?, ?)';
/** Who is meant by name, and whose annotation it leads to. */
export const PEOPLE_MEANT = `
  SELECT target FROM annotation_link WHERE annotation_id = @id AND type = 'person'
  UNION SELECT a.author_id FROM annotation_link l JOIN annotation a ON a.id = l.target
  WHERE l.annotation_id = @id AND l.type = 'annotation' AND a.deleted_at IS NULL`;
export const LINKED_TO = `
  SELECT a.id, a.source_id AS sourceId, s.title, p.name AS author, ${KIND_COLUMNS}, a.note, a.root_id AS rootId
  FROM annotation_link l JOIN annotation a ON a.id = l.annotation_id JOIN source s ON s.id = a.source_id JOIN person p ON p.id = a.author_id ${KIND_JOIN}
  WHERE l.type = @type AND l.target = @id AND EXISTS (SELECT 1 FROM annotation_visible v WHERE v.person_id = @me AND v.seq = a.seq)
  ORDER BY a.created_at DESC LIMIT 50`;
export const READERS = `
  SELECT p.id, p.name FROM person p
  WHERE p.id IN (SELECT owner_id FROM source WHERE id = @source UNION SELECT m.person_id FROM class_source cs JOIN membership m ON m.class_id = cs.class_id WHERE cs.source_id = @source
    AND EXISTS (SELECT 1 FROM membership mine WHERE mine.class_id = cs.class_id AND mine.person_id = @me))
  ORDER BY p.name`;
const PUT_PICTURE = 'INSERT INTO picture (hash, person_id, created_at) VALUES (?, ?, ?) ON CONFLICT DO NOTHING';
export const MAY_SEE_PICTURE = `SELECT 1 AS one WHERE EXISTS (SELECT 1 FROM picture WHERE hash = @hash AND person_id = @me)
  OR EXISTS (SELECT 1 FROM annotation_link l JOIN annotation_visible v ON v.annotation_id = l.annotation_id AND v.person_id = @me
    WHERE l.type = 'picture' AND l.target = @hash AND EXISTS (SELECT 1 FROM annotation a JOIN picture p ON p.person_id = a.author_id AND p.hash = @hash WHERE a.id = l.annotation_id))`;

export function setLinks(db: Db, annotationId: AnnotationId, links: readonly NoteLink[]): void {
  db.run(CLEAR, annotationId);
  for (const { type, id } of links) db.run(ADD, annotationId, type, id);
}

export const peopleMeant = (db: Db, annotationId: AnnotationId): string[] =>
  db.all<{ target: string }>(PEOPLE_MEANT, { id: annotationId }).map((r) => r.target);

/** The annotations this person sees whose notes lead to something. */
export function linkedTo(db: Db, me: PersonId, { type, id }: NoteLink): Linked[] {
  return db.all<KindRow & Omit<Linked, 'kind'>>(LINKED_TO, { me, type, id }).map((row) => ({
    id: row.id,
    sourceId: row.sourceId,
    title: row.title,
    author: row.author,
    kind: kindFrom(row),
    note: row.note,
    rootId: row.rootId,
  }));
}

/** Whom one can mean in a note on a source: its owner and the people of one's own classes that have it. */
export const readersOf = (db: Db, me: PersonId, source: string): Person[] => db.all<Person>(READERS, { me, source });

export const putPicture = (db: Db, hash: string, personId: PersonId, now: string): void =>
  void db.run(PUT_PICTURE, hash, personId, now);
/** One's own; else one that its owner put into a note one sees. */
export const maySeePicture = (db: Db, me: PersonId, hash: string): boolean =>
  db.get(MAY_SEE_PICTURE, { me, hash }) !== undefined;
