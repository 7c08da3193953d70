import { indexText, locateAll, type Anchor } from '@avrelle/core/anchor';
import { answerAudience, type ForClass } from '@avrelle/core/audience';
import { linksIn } from '@avrelle/core/note';
import type { Annotation, AnnotationPatch, AnnotationPut, Me, PlacePut, ReplyPut } from '@avrelle/core/wire';
import { canRead } from '../access/access-queries';
import { noteOwn } from '../assignments/own-given';
import { commentsClosed } from '../assignments/queries';
import { archivedClass, classesOf } from '../classes/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { ownerOfKind } from '../legend/queries';
import { peopleMeant, setLinks } from '../notes/queries';
import { followersSeeing, tellFollowers } from '../notifications/tell-followers';
import { versionOf, versionText } from '../sources/queries';
import { newestId, newestVersion, place, placeByHand, setStart } from '../versions/queries';
import {
  annotationFor,
  authorOf,
  forClasses,
  insertAnnotation,
  ownAnnotation,
  setPassage,
  setTags,
  toWire,
  updateAnnotation,
  type AnnotationRow,
  type ChangedAnnotation,
} from './queries';
import { changeAudience, checkAudience, newAudience, mustBeOpen } from './audience';
import { tellOf } from './tell';

/** Creates an annotation under the id its author's page made; the same write again changes nothing. */
export function putAnnotation(context: Context, me: Me, id: string, put: AnnotationPut): Annotation {
  const { db } = context;
  return db.transaction(() => {
    const repeated = alreadyThere(context, me, id);
    if (repeated) return repeated;
    if (!canRead(db, me.id, put.sourceId) || versionOf(db, put.versionId)?.sourceId !== put.sourceId)
      throw new AppError('not_found', { what: 'source' });
    checkAnchor(context, put);
    const classes = newAudience(context, me, put);
    checkAudience(context, me, put, classes);
    mustBeOpen(context, me, put.sourceId, put.classIds);
    insertAnnotation(
      db,
      {
        ...put,
        id,
        authorId: me.id,
        kindOwner: kindOwner(context, me, put.kind),
        anchor: put.anchor,
        classes,
        rootId: null,
        parentId: null,
      },
      context.now(),
    );
    bringUpToDate(context, put, id);
    context.events.append({ type: 'annotation', annotationId: id, sourceId: put.sourceId, personId: me.id });
    noteOwn(context, me.id, put.sourceId);
    tellOf(context, id, peopleMeant(db, id), me.id);
    tellFollowers(context, id, me.id);
    return annotationFor(db, me.id, id)!;
  });
}

/** Answers an annotation or another reply; whoever is answered is told. */
export function putReply(context: Context, me: Me, id: string, { parentId, note }: ReplyPut): Annotation {
  const { db, now, events } = context;
  return db.transaction(() => {
    const repeated = alreadyThere(context, me, id);
    if (repeated) return repeated;
    const parent = annotationFor(db, me.id, parentId);
    const root = parent?.rootId ? annotationFor(db, me.id, parent.rootId) : parent;
    if (!parent || !root) throw new AppError('not_found', { what: 'annotation' });
    const classes = answersTo(context, me, root);
    insertAnnotation(
      db,
      {
        id,
        sourceId: root.sourceId,
        versionId: root.versionId,
        authorId: me.id,
        kind: 'note',
        note,
        anchor: null,
        rootId: root.id,
        parentId,
        tags: [],
        classes,
      },
      now(),
    );
    events.append({ type: 'annotation', annotationId: id, sourceId: root.sourceId, personId: me.id });
    tellOf(context, id, [parent.author.id, root.author.id, ...peopleMeant(db, id)], me.id);
    tellFollowers(context, id, me.id);
    return annotationFor(db, me.id, id)!;
  });
}

/** For those of what it answers, in the classes its author is in, and where one may write now. */
function answersTo(context: Context, me: Me, { id, sourceId }: Annotation): readonly ForClass[] {
  const { db } = context;
  const mine = new Set(classesOf(db, me.id).map((c) => c.id));
  const classes = answerAudience(forClasses(db, id), mine);
  const open = classes.filter(
    ({ classId }) => archivedClass(db, classId) === undefined && !commentsClosed(db, { classId, sourceId }, me.id),
  );
  if (open.length === 0)
    mustBeOpen(
      context,
      me,
      sourceId,
      classes.map(({ classId }) => classId),
    );
  return open;
}

/** Changes one's own annotation: words, kind, tags, audience, or deleting it and taking that back. */
export function patchAnnotation(context: Context, me: Me, id: string, patch: AnnotationPatch): Annotation {
  const { db, now, events } = context;
  return db.transaction(() => {
    const before = mine(context, me, id);
    mayChange(context, me, before, patch);
    if (!updateAnnotation(db, { id, version: patch.version }, changed(context, me, before, patch), now()))
      throw new AppError('stale', { yours: patch.version, current: before.version }, { current: toWire(before) });
    const former = forClasses(db, id);
    const saw = followersSeeing(db, id);
    if (patch.tags) setTags(db, id, patch.tags, now());
    if (patch.note !== undefined) setLinks(db, id, linksIn(patch.note));
    if (patch.passage) movePassage(context, before, patch.passage);
    if (before.rootId === null) changeAudience(context, me, before, patch);
    events.append({
      type: 'annotation',
      annotationId: id,
      sourceId: before.sourceId,
      personId: me.id,
      formerClasses: former,
    });
    noteOwn(context, me.id, before.sourceId);
    tellOf(context, id, peopleMeant(db, id), me.id);
    tellFollowers(context, id, me.id, saw);
    return toWire(ownAnnotation(db, me.id, id)!);
  });
}

/** What it is after the change. */
function changed(context: Context, me: Me, before: AnnotationRow, patch: AnnotationPatch): ChangedAnnotation {
  const deleted = patch.deleted ?? before.deletedAt !== null;
  return {
    kind: patch.kind ?? before.kind,
    kindOwner: patch.kind ? kindOwner(context, me, patch.kind) : before.kindOwner,
    note: patch.note ?? before.note,
    deletedAt: deleted ? (before.deletedAt ?? context.now()) : null,
  };
}

/** Who may read the source no longer keeps what they wrote on it, and can take it back; its words, which others read, stay as they were. */
function mayChange({ db }: Context, me: Me, before: AnnotationRow, patch: AnnotationPatch): void {
  if (canRead(db, me.id, before.sourceId)) return;
  const { version: _version, deleted: _deleted, classIds = [], ...more } = patch;
  if (Object.values(more).some((value) => value !== undefined) || classIds.length > 0)
    throw new AppError('not_found', { what: 'source' });
}

/** Grown, shrunk or put elsewhere: what was found of the former words in other versions holds no longer. */
function movePassage(
  context: Context,
  before: AnnotationRow,
  { versionId, anchor }: NonNullable<AnnotationPatch['passage']>,
): void {
  if (before.rootId !== null || versionOf(context.db, versionId)?.sourceId !== before.sourceId)
    throw new AppError('not_found', { what: 'passage' });
  checkAnchor(context, { versionId, anchor });
  setPassage(context.db, before.id, versionId, anchor as Anchor);
  bringUpToDate(context, { sourceId: before.sourceId, versionId, anchor }, before.id);
}

/** Several at once: where one of them cannot be changed, none is. */
export function patchAnnotations(
  context: Context,
  me: Me,
  changes: readonly (AnnotationPatch & { readonly id: string })[],
): Annotation[] {
  return context.db.transaction(() => changes.map(({ id, ...patch }) => patchAnnotation(context, me, id, patch)));
}

/** Written on a page that was opened before the newest version came: it is looked for there at once. */
function bringUpToDate(
  { db }: Context,
  { sourceId, versionId, anchor }: Pick<AnnotationPut, 'sourceId' | 'versionId' | 'anchor'>,
  id: string,
): void {
  if (newestId(db, sourceId) === versionId) return;
  const newest = newestVersion(db, sourceId);
  if (newest) place(db, id, newest.id, locateAll(indexText(newest.stream), [anchor as Anchor])[0]!);
}

/** Its author says where an annotation belongs in the newest version, or goes by what was found again. */
export function placeAnnotation(context: Context, me: Me, id: string, { versionId, start, end }: PlacePut): Annotation {
  const { db, events } = context;
  return db.transaction(() => {
    const before = mine(context, me, id);
    if (!canRead(db, me.id, before.sourceId)) throw new AppError('not_found', { what: 'source' });
    if (before.anchor === null) throw new AppError('not_found', { what: 'annotation' });
    const newest = newestVersion(db, before.sourceId)!;
    if (before.deletedAt !== null || newest.id !== versionId)
      throw new AppError('old_version', { what: 'annotation', number: newest.number });
    const place = placeWithin(newest.stream.length, start, end);
    placeByHand(db, { annotationId: id, versionId }, place, (JSON.parse(before.anchor) as Anchor).position);
    const after = annotationFor(db, me.id, id)!;
    if (after.place?.start != null) setStart(db, id, after.place.start);
    events.append({ type: 'annotation', annotationId: id, sourceId: before.sourceId, personId: me.id });
    return after;
  });
}

/** Null where what was found again holds. Throws `outside_text`. */
function placeWithin(length: number, start: number | null, end: number | null): Range | null {
  if (start === null && end === null) return null;
  if (start === null || end === null || start >= end || end > length)
    throw new AppError('outside_text', { start: start ?? 'nothing', end: end ?? 'nothing', length });
  return { start, end };
}

interface Range {
  readonly start: number;
  readonly end: number;
}

function alreadyThere({ db }: Context, me: Me, id: string): Annotation | undefined {
  const author = authorOf(db, id);
  if (author === undefined) return undefined;
  const there = author === me.id ? annotationFor(db, me.id, id) : undefined;
  if (!there) throw new AppError('id_taken', { id });
  return there;
}

function mine({ db }: Context, me: Me, id: string): AnnotationRow {
  const own = ownAnnotation(db, me.id, id);
  if (own) return own;
  const seen = annotationFor(db, me.id, id);
  if (seen) throw new AppError('not_yours', { what: 'annotation', owner: seen.author.name });
  throw new AppError('not_found', { what: 'annotation' });
}

function kindOwner({ db }: Context, me: Me, code: string): string {
  const owner = ownerOfKind(db, me.id, code);
  if (owner === undefined) throw new AppError('unknown_kind', { code });
  return owner;
}

function checkAnchor({ db }: Context, { versionId, anchor }: Pick<AnnotationPut, 'versionId' | 'anchor'>): void {
  const text = versionText(db, versionId)?.stream ?? '';
  const { start, end } = anchor.position;
  if (start >= end || end > text.length) throw new AppError('outside_text', { start, end, length: text.length });
  if (text.slice(start, end) !== anchor.quote.exact) throw new AppError('quote_mismatch', { start, end });
}
