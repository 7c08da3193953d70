import type { Kind } from '@avrelle/core/legend';
import type { AnnotationId, Joins, PersonId, SourceId, StudyNoteId, StudyNoteRow } from '@avrelle/core/wire';
import type { Db } from '../db/database';

const TITLE = `CASE WHEN n.title = '' THEN coalesce(s.title, '') ELSE n.title END AS title`;
const ROW = `n.id, ${TITLE}, n.source_id, n.excerpts, n.words, n.created_at, n.changed_at, n.version`;
const FROM = 'FROM study_note n LEFT JOIN source s ON s.id = n.source_id';
export const MINE = `
  SELECT ${ROW} ${FROM}
  WHERE n.owner_id = @me AND n.deleted_at IS NULL ORDER BY n.changed_at DESC, n.id`;
const ONE = `
  SELECT ${ROW}, n.title AS own_title, n.owner_id, n.markdown, n.joins, n.kinds, n.deleted_at ${FROM} WHERE n.id = ?`;
const OF_SOURCE = 'SELECT id FROM study_note WHERE source_id = @source AND owner_id = @me';
/** Sources somebody marked, for which there never was a note. */
export const MISSING = `
  SELECT DISTINCT a.source_id FROM annotation a JOIN source s ON s.id = a.source_id
  WHERE a.author_id = @me AND a.root_id IS NULL AND a.deleted_at IS NULL AND a.anchor IS NOT NULL
    AND s.deleted_at IS NULL
    AND NOT EXISTS (SELECT 1 FROM study_note n WHERE n.source_id = a.source_id AND n.owner_id = @me)`;
/** Those of sources whose marks have changed since, the newest changes first. */
export const BEHIND = `
  SELECT n.id FROM study_note n
  WHERE n.owner_id = @me AND n.deleted_at IS NULL AND n.joins = 'all' AND n.source_id IS NOT NULL
    AND EXISTS (SELECT 1 FROM annotation a
      WHERE a.source_id = n.source_id AND a.author_id = @me AND a.updated_at >= n.followed_at)
  ORDER BY n.followed_at <> '', n.changed_at DESC LIMIT @most`;
const INSERT = `
  INSERT INTO study_note (id, owner_id, source_id, title, markdown, joins, created_at, changed_at)
  VALUES (@id, @me, @source, @title, @markdown, @joins, @now, @now) ON CONFLICT DO NOTHING`;
const UPDATE = `
  UPDATE study_note SET title = @ownTitle, joins = @joins, kinds = @kinds, deleted_at = @deletedAt
  WHERE id = @id`;
const WRITE = `
  UPDATE study_note SET markdown = @markdown, excerpts = @excerpts, words = @words, changed_at = @now,
    version = version + 1
  WHERE id = @id`;
const FOLLOWED = 'UPDATE study_note SET followed_at = @now WHERE id = @id';
const EXPIRED = 'DELETE FROM study_note WHERE deleted_at < ? AND source_id IS NULL';
/** That of a source leaves a trace, so that it does not come again by itself. */
const EMPTIED = `
  UPDATE study_note SET markdown = '', title = '', excerpts = 0, words = 0
  WHERE deleted_at < ? AND source_id IS NOT NULL AND (markdown <> '' OR title <> '')`;
const FORGET_EXPIRED = `
  DELETE FROM study_excerpt WHERE note_id IN (SELECT id FROM study_note WHERE deleted_at < ? AND markdown = '')`;

export interface StoredNote extends StudyNoteRow {
  readonly ownerId: PersonId;
  /** '' where it is called as its source is. */
  readonly ownTitle: string;
  readonly markdown: string;
  readonly joins: Joins;
  readonly kinds: string;
  readonly deletedAt: string | null;
}

export const notesOf = (db: Db, me: PersonId): StudyNoteRow[] => db.all<StudyNoteRow>(MINE, { me });
/** Deleted or not, whoever's it is. */
export const storedNote = (db: Db, id: StudyNoteId): StoredNote | undefined => db.get<StoredNote>(ONE, id);
/** Deleted or not. */
export const noteOfSource = (db: Db, me: PersonId, source: SourceId): StudyNoteId | undefined =>
  db.get<{ id: StudyNoteId }>(OF_SOURCE, { me, source })?.id;
export const sourcesWithoutNote = (db: Db, me: PersonId): SourceId[] =>
  db.all<{ sourceId: SourceId }>(MISSING, { me }).map((row) => row.sourceId);
export const notesBehind = (db: Db, me: PersonId, most: number): StudyNoteId[] =>
  db.all<{ id: StudyNoteId }>(BEHIND, { me, most }).map((row) => row.id);

export interface NewNote {
  readonly id: StudyNoteId;
  readonly me: PersonId;
  readonly source: SourceId | null;
  readonly title: string;
  readonly markdown: string;
  readonly joins: Joins;
}
export const insertNote = (db: Db, note: NewNote, now: string): void => void db.run(INSERT, { ...note, now });

export const updateNote = (
  db: Db,
  id: StudyNoteId,
  { ownTitle, joins, kinds, deletedAt }: Pick<StoredNote, 'ownTitle' | 'joins' | 'kinds' | 'deletedAt'>,
): void => void db.run(UPDATE, { id, ownTitle, joins, kinds, deletedAt });
/** Its version goes up. */
export const writeNote = (
  db: Db,
  id: StudyNoteId,
  to: Pick<StoredNote, 'markdown' | 'excerpts' | 'words'>,
  now: string,
): void => void db.run(WRITE, { id, ...to, now });
export const setFollowed = (db: Db, id: StudyNoteId, now: string): void => void db.run(FOLLOWED, { id, now });

export function removeExpiredNotes(db: Db, before: string): void {
  db.run(EXPIRED, before);
  db.run(EMPTIED, before);
  db.run(FORGET_EXPIRED, before);
}

const EXCERPTS = 'SELECT annotation_id, written, stands, kind, source_id FROM study_excerpt WHERE note_id = ?';
const PUT_EXCERPT = `
  INSERT INTO study_excerpt (note_id, annotation_id, written, stands, kind, source_id)
  VALUES (@note, @annotationId, @written, @stands, @kind, @sourceId)
  ON CONFLICT DO UPDATE SET written = excluded.written, stands = excluded.stands,
    kind = coalesce(excluded.kind, kind), source_id = coalesce(excluded.source_id, source_id)`;
const FREE = `
  DELETE FROM study_excerpt
  WHERE note_id = @note AND stands = 0 AND annotation_id IN (SELECT value FROM json_each(@ids))`;

export interface StoredExcerpt {
  readonly annotationId: AnnotationId;
  readonly written: string;
  readonly stands: boolean;
  readonly kind: Kind | null;
  readonly sourceId: SourceId | null;
}

export const excerptsIn = (db: Db, note: StudyNoteId): StoredExcerpt[] =>
  db
    .all<{
      annotationId: AnnotationId;
      written: string;
      stands: number;
      kind: string | null;
      sourceId: SourceId | null;
    }>(EXCERPTS, note)
    .map((row) => ({ ...row, stands: row.stands === 1, kind: row.kind ? (JSON.parse(row.kind) as Kind) : null }));
export const putExcerpt = (db: Db, note: StudyNoteId, excerpt: StoredExcerpt): void =>
  void db.run(PUT_EXCERPT, {
    note,
    ...excerpt,
    stands: excerpt.stands ? 1 : 0,
    kind: excerpt.kind && JSON.stringify(excerpt.kind),
  });
/** What was taken out of a note can come in again. */
export const freeExcerpts = (db: Db, note: StudyNoteId, ids: readonly AnnotationId[]): void =>
  void db.run(FREE, { note, ids: JSON.stringify(ids) });

export const MARKS_IN = `
  SELECT a.id, a.kind FROM annotation a
  WHERE a.source_id = @source AND a.author_id = @me AND a.root_id IS NULL AND a.deleted_at IS NULL
    AND a.anchor IS NOT NULL
  ORDER BY a.start, a.created_at`;
/** Answers that are worth keeping: with my star, recommended by who teaches, or mine. */
export const ANSWERS = `
  SELECT r.id FROM annotation r
  WHERE r.root_id IN (SELECT value FROM json_each(@ids)) AND r.deleted_at IS NULL
    AND (r.author_id = @me OR r.endorsed_by IS NOT NULL OR EXISTS (
      SELECT 1 FROM annotation_star t WHERE t.person_id = @me AND t.annotation_id = r.id))`;

export const marksIn = (
  db: Db,
  me: PersonId,
  source: SourceId,
): { readonly id: AnnotationId; readonly kind: string }[] => db.all(MARKS_IN, { me, source });
export const answersTo = (db: Db, me: PersonId, ids: readonly AnnotationId[]): AnnotationId[] =>
  db.all<{ id: AnnotationId }>(ANSWERS, { me, ids: JSON.stringify(ids) }).map((row) => row.id);

const SEQS = `
  SELECT a.seq FROM json_each(@ids) i JOIN annotation a ON a.id = i.value ORDER BY i.key`;
/** Row numbers of annotations, in the order given. */
export const seqsOf = (db: Db, ids: readonly AnnotationId[]): number[] =>
  db.all<{ seq: number }>(SEQS, { ids: JSON.stringify(ids) }).map((row) => row.seq);

const ROOTS = `
  SELECT a.seq FROM json_each(@seqs) i JOIN annotation a ON a.seq = i.value
  WHERE a.root_id IS NULL AND a.anchor IS NOT NULL ORDER BY i.key`;
/** Of annotations by their row numbers those that stand in a source, in the order given. */
export const rootsAmong = (db: Db, seqs: readonly number[]): number[] =>
  db.all<{ seq: number }>(ROOTS, { seqs: JSON.stringify(seqs) }).map((row) => row.seq);

export const NEWEST_MARKS = `
  SELECT a.seq FROM annotation a
  WHERE a.author_id = @me AND a.root_id IS NULL AND a.deleted_at IS NULL AND a.anchor IS NOT NULL
  ORDER BY a.created_at DESC`;
/** What somebody marked, by its row numbers. */
export const newestMarks = (db: Db, me: PersonId): number[] =>
  db.all<{ seq: number }>(NEWEST_MARKS, { me }).map((row) => row.seq);
