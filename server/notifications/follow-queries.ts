import { plainWords } from '@avrelle/core/markdown';
import type { AnnotationId, Follows, PersonId, SourceId } from '@avrelle/core/wire';
import { sees } from '../access/visible-queries';
import type { Db } from '../db/database';

/** One of the three. */
export interface Followed {
  readonly sourceId?: SourceId;
  readonly rootId?: AnnotationId;
  readonly authorId?: PersonId;
}
const named = ({ sourceId, rootId, authorId }: Followed) => ({
  source: sourceId ?? null,
  root: rootId ?? null,
  author: authorId ?? null,
});

const FOLLOW = `
  INSERT INTO follow (person_id, source_id, root_id, author_id, created_at)
  VALUES (@me, @source, @root, @author, @now) ON CONFLICT DO NOTHING`;
const UNFOLLOW = `
  DELETE FROM follow
  WHERE person_id = @me AND source_id IS @source AND root_id IS @root AND author_id IS @author`;
/** How many rows that changed. */
export const follow = (db: Db, me: PersonId, followed: Followed, now: string): number =>
  db.run(FOLLOW, { me, now, ...named(followed) });
export const unfollow = (db: Db, me: PersonId, followed: Followed): number =>
  db.run(UNFOLLOW, { me, ...named(followed) });

export const SHARES_CLASS = `
  SELECT 1 FROM membership m JOIN membership o ON o.class_id = m.class_id
  JOIN class c ON c.id = m.class_id AND c.deleted_at IS NULL
  WHERE m.person_id = @me AND o.person_id = @other LIMIT 1`;
export const sharesClass = (db: Db, me: PersonId, other: PersonId): boolean =>
  db.get(SHARES_CLASS, { me, other }) !== undefined;

export const FOLLOWED_SOURCES = `
  SELECT s.id, s.title FROM follow f JOIN source s ON s.id = f.source_id
  WHERE f.person_id = @me AND EXISTS (
    SELECT 1 FROM source_visible v WHERE v.person_id = @me AND v.source_id = s.id)
  ORDER BY f.created_at DESC`;
export const FOLLOWED_THREADS = `
  SELECT a.id AS root_id, a.source_id, coalesce(nullif(a.note, ''), a.quote, '') AS words
  FROM follow f JOIN annotation a ON a.id = f.root_id
  WHERE f.person_id = @me AND ${sees('a')} ORDER BY f.created_at DESC`;
export const FOLLOWED_PEOPLE = `
  SELECT p.id, p.name FROM follow f JOIN person p ON p.id = f.author_id
  WHERE f.person_id = @me AND EXISTS (
    SELECT 1 FROM membership m JOIN membership o ON o.class_id = m.class_id AND o.person_id = p.id
    WHERE m.person_id = @me)
  ORDER BY p.name`;
/** Longest short form of a thread, in characters. */
const SHORT = 120;

export const followsOf = (db: Db, me: PersonId): Follows => ({
  sources: db.all<Follows['sources'][number]>(FOLLOWED_SOURCES, { me }),
  threads: db
    .all<Follows['threads'][number]>(FOLLOWED_THREADS, { me })
    .map((thread) => ({ ...thread, words: plainWords(thread.words).slice(0, SHORT) })),
  people: db.all<Follows['people'][number]>(FOLLOWED_PEOPLE, { me }),
});

export const FOLLOWERS = `
  SELECT f.person_id FROM annotation a JOIN follow f ON f.source_id = a.source_id WHERE a.id = @id
  UNION SELECT f.person_id FROM annotation a JOIN follow f ON f.root_id = coalesce(a.root_id, a.id) WHERE a.id = @id
  UNION SELECT f.person_id FROM annotation a JOIN follow f ON f.author_id = a.author_id WHERE a.id = @id`;
/** Who follows where it stands, its thread, or its author; whether they see it is another question. */
export const followersOf = (db: Db, id: AnnotationId): PersonId[] =>
  db.all<{ personId: PersonId }>(FOLLOWERS, { id }).map((row) => row.personId);
