import { createHash } from 'node:crypto';
import { excerptsOf, follow, wordCount, type ExcerptState } from '@avrelle/core/study';
import type {
  AnnotationId,
  ExcerptsPut,
  Me,
  PersonId,
  SourceId,
  StudyExcerpt,
  StudyNote,
  StudyNoteId,
  StudyNotePatch,
  StudyNotePut,
  StudyNoteRow,
} from '@avrelle/core/wire';
import { AppError } from '../errors';
import type { Writing } from '../writing';
import { currentExcerpts, referencesOf, type CurrentExcerpt } from './excerpts';
import {
  excerptsIn,
  freeExcerpts,
  insertNote,
  marksIn,
  noteOfSource,
  notesBehind,
  notesOf,
  putExcerpt,
  setFollowed,
  sourcesWithoutNote,
  storedNote,
  updateNote,
  writeNote,
  type StoredExcerpt,
  type StoredNote,
} from './queries';

/** So many notes are brought up to their marks when the list is asked for; others when they are opened. */
const AT_ONCE = 20;

/** The notes of somebody; each source they marked has one. */
export function listNotes(world: Writing, me: Me): StudyNoteRow[] {
  const { db } = world;
  const missing = sourcesWithoutNote(db, me.id);
  if (missing.length > 0 || notesBehind(db, me.id, 1).length > 0)
    db.transaction(() => {
      for (const source of missing) makeSourceNote(world, me.id, source);
      for (const id of notesBehind(db, me.id, AT_ONCE)) opened(world, me.id, id);
    });
  return notesOf(db, me.id);
}

function makeSourceNote({ db, newId, now }: Writing, me: PersonId, source: SourceId): StudyNoteId {
  const id = newId();
  insertNote(db, { id, me, source, title: '', markdown: '', joins: 'all' }, now());
  return id;
}

/** That of a source, made where there is none, and brought back where it was deleted. */
export function sourceNote(world: Writing, me: Me, source: SourceId): StudyNote {
  const { db } = world;
  return db.transaction(() => {
    const id = noteOfSource(db, me.id, source) ?? makeSourceNote(world, me.id, source);
    const note = storedNote(db, id)!;
    if (note.deletedAt !== null) updateNote(db, id, { ...note, deletedAt: null });
    return opened(world, me.id, id);
  });
}

/** As it stands once it has followed its annotations. */
export const openNote = (world: Writing, me: Me, id: StudyNoteId): StudyNote =>
  world.db.transaction(() => opened(world, me.id, id));

/** A note of one's own choosing under the id its author's page made; the same again changes nothing. */
export function putNote(world: Writing, me: Me, id: StudyNoteId, { title, markdown }: StudyNotePut): StudyNote {
  const { db, now, events } = world;
  return db.transaction(() => {
    const there = storedNote(db, id);
    if (there && (there.ownerId !== me.id || there.deletedAt !== null)) throw new AppError('id_taken', { id });
    if (!there) {
      insertNote(db, { id, me: me.id, source: null, title, markdown: '', joins: 'put' }, now());
      if (markdown !== '') write(world, storedNote(db, id)!, markdown);
      events.append({ type: 'study', personId: me.id });
    }
    return opened(world, me.id, id);
  });
}

/** Changes a note of one's own. Throws `stale`, with what stands there now, where it is another version by now. */
export function patchNote(world: Writing, me: Me, id: StudyNoteId, patch: StudyNotePatch): StudyNote {
  const { db, events, now } = world;
  const changed = db.transaction(() => {
    const before = storedNote(db, id)!;
    if (patch.version !== before.version) return undefined;
    updateNote(db, id, {
      ownTitle: patch.title ?? before.ownTitle,
      joins: patch.joins ?? before.joins,
      kinds: patch.kinds ? JSON.stringify(patch.kinds) : before.kinds,
      deletedAt: patch.deleted ? now() : before.deletedAt,
    });
    if (patch.settled) settle(world, me.id, id, patch.settled);
    if (patch.markdown !== undefined && patch.markdown !== before.markdown) write(world, before, patch.markdown);
    events.append({ type: 'study', personId: me.id });
    return opened(world, me.id, id);
  });
  if (changed) return changed;
  // What stands there now has to be stored as it is told: it is written next on top of that.
  const current = openNote(world, me, id);
  throw new AppError('stale', { yours: patch.version, current: current.version }, { current });
}

export function restoreNote(world: Writing, me: Me, id: StudyNoteId): StudyNote {
  const { db, events } = world;
  return db.transaction(() => {
    updateNote(db, id, { ...storedNote(db, id)!, deletedAt: null });
    events.append({ type: 'study', personId: me.id });
    return opened(world, me.id, id);
  });
}

/** Puts excerpts into a note: of a source in order of place, else at the end. What stands there already stays. */
export function putExcerpts(world: Writing, me: Me, id: StudyNoteId, ids: readonly AnnotationId[]): ExcerptsPut {
  const { db, events } = world;
  return db.transaction(() => {
    const standing = new Set(excerptsOf(storedNote(db, id)!.markdown).map((e) => e.annotationId));
    const put = ids.filter((one) => !standing.has(one));
    if (currentExcerpts(db, me.id, put).length < new Set(put).size)
      throw new AppError('not_found', { what: 'annotation' });
    freeExcerpts(db, id, put);
    const note = opened(world, me.id, id, new Set(put));
    events.append({ type: 'study', personId: me.id });
    return { note, put };
  });
}

/** The person has seen that annotations changed, and leaves what they made of them as it is. */
function settle({ db }: Writing, me: PersonId, id: StudyNoteId, ids: readonly AnnotationId[]): void {
  const known = new Map(excerptsIn(db, id).map((e) => [e.annotationId, e]));
  for (const { annotationId, text } of currentExcerpts(db, me, ids)) {
    const excerpt = known.get(annotationId);
    if (excerpt) putExcerpt(db, id, { ...excerpt, written: fingerprint(text) });
  }
}

function write({ db, now }: Writing, { id }: Pick<StoredNote, 'id'>, markdown: string): void {
  const excerpts = excerptsOf(markdown).length;
  writeNote(db, id, { markdown, excerpts, words: wordCount(markdown) }, now());
}

/** Brings a note up to what its annotations are, and gives it. Within a transaction. */
function opened(world: Writing, me: PersonId, id: StudyNoteId, put: ReadonlySet<AnnotationId> = new Set()): StudyNote {
  const { db, now } = world;
  const note = storedNote(db, id)!;
  const known = excerptsIn(db, id);
  const wanted = wantedIn(world, me, note, put);
  const current = currentExcerpts(db, me, wanted.ids);
  const followed = follow(note.markdown, {
    current,
    joins: wanted.joins,
    known: new Map(known.map((e) => [e.annotationId, e.written])),
    atEnd: note.sourceId === null,
    fingerprint,
  });
  if (followed.markdown !== note.markdown) write(world, note, followed.markdown);
  keepKnown(world, id, known, { current, ...followed });
  setFollowed(db, id, now());
  return wireOf(world, me, id, { current, states: followed.states });
}

/** The marks of a source in order of place, then what else stands in the note; and which of them join. */
function wantedIn(
  { db }: Writing,
  me: PersonId,
  { sourceId, markdown, joins, kinds }: StoredNote,
  put: ReadonlySet<AnnotationId>,
): { readonly ids: readonly AnnotationId[]; readonly joins: ReadonlySet<AnnotationId> } {
  const marks = sourceId === null ? [] : marksIn(db, me, sourceId);
  const wanted = new Set(JSON.parse(kinds) as string[]);
  const joining = marks.filter(({ kind }) => joins === 'all' && (wanted.size === 0 || wanted.has(kind)));
  const standing = excerptsOf(markdown).map((e) => e.annotationId);
  return {
    ids: [...new Set([...marks.map((m) => m.id), ...standing, ...put])],
    joins: new Set([...joining.map((m) => m.id), ...put]),
  };
}

interface Now {
  readonly current: readonly CurrentExcerpt[];
  readonly known: ReadonlyMap<string, string>;
  readonly states: ReadonlyMap<string, ExcerptState>;
}

/** Of what changed of an excerpt: what was written of it, whether it stands, and its kind. */
function keepKnown({ db }: Writing, id: StudyNoteId, before: readonly StoredExcerpt[], now: Now): void {
  const current = new Map(now.current.map((one) => [one.annotationId, one]));
  const former = new Map(before.map((one) => [one.annotationId, one]));
  for (const [annotationId, written] of now.known) {
    const there = current.get(annotationId);
    const was = former.get(annotationId);
    const next: StoredExcerpt = {
      annotationId,
      written,
      stands: now.states.has(annotationId),
      kind: there?.kind ?? was?.kind ?? null,
      sourceId: there?.sourceId ?? was?.sourceId ?? null,
    };
    if (!was || JSON.stringify(was) !== JSON.stringify({ ...was, ...next })) putExcerpt(db, id, next);
  }
}

function wireOf(
  { db }: Writing,
  me: PersonId,
  id: StudyNoteId,
  { current, states }: Pick<Now, 'current' | 'states'>,
): StudyNote {
  const {
    ownerId: _owner,
    ownTitle: _own,
    deletedAt: _deleted,
    kinds,
    excerpts: _count,
    ...note
  } = storedNote(db, id)!;
  const now = new Map(current.map((one) => [one.annotationId, one]));
  const excerpts = excerptsIn(db, id).flatMap(({ annotationId, kind, stands }): StudyExcerpt[] => {
    const state = states.get(annotationId);
    if (!stands || !state) return [];
    const there = now.get(annotationId);
    const newer = state === 'changed' ? (there?.text ?? null) : null;
    return [{ annotationId, state, sourceId: there?.sourceId ?? null, kind, newer }];
  });
  const sources = [...new Set([note.sourceId, ...excerpts.map((e) => e.sourceId)].filter((one) => one !== null))];
  return { ...note, kinds: JSON.parse(kinds) as string[], excerpts, references: referencesOf(db, me, sources) };
}

/** By which it is known whether an excerpt was touched. */
const fingerprint = (text: string): string => createHash('sha256').update(text).digest('hex').slice(0, 32);
