import { createHash } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { indexText } from '@avrelle/core/anchor';
import type { Outline } from '@avrelle/core/text';
import { UUID_V7, type BroughtIn, type Me, type SourceDetail, type PersonId, type SourceId } from '@avrelle/core/wire';
import { annotationFor, authorOf, insertAnnotation, ownAnnotation, updateAnnotation } from '../annotations/queries';
import type { Context } from '../context';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { kindsOf } from '../legend/queries';
import { serving } from '../serve';
import { sourceDetail, versionText } from '../sources/queries';
import { annotationsIn, readWebAnnotation, type Brought } from './web-annotations';

const MOST = 2_000;

export function importRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  app.addContentTypeParser('application/ld+json', { parseAs: 'string' }, app.getDefaultJsonParser('error', 'error'));

  serving(app, context)('POST /api/sources/:id/annotations.jsonld', ({ me, params, request }) => {
    const given = annotationsIn(request.body);
    if (given.length > MOST)
      throw new AppError('invalid', {
        message: `The file holds ${given.length} annotations; at most ${MOST} can be brought in at once.`,
      });
    const source = sourceDetail(db, me.id, params.id)!;
    const text = versionText(db, source.versionId)!;
    const index = indexText(text.stream, JSON.parse(text.outline) as Outline);
    const kinds = kindsOf(db, me.id);
    const read = given.map((one) => readWebAnnotation(index, kinds, one, me.name));
    return db.transaction(() => bringIn(context, me, source, read));
  });
}

/** Call within a transaction. */
function bringIn({ db, now, events }: Context, me: Me, source: SourceDetail, read: readonly Brought[]): BroughtIn {
  const refused: { number: number; why: string }[] = [];
  const counts = { brought: 0, already: 0 };
  const ids = new Map<string, string>();
  const into = { sourceId: source.id, versionId: source.versionId, authorId: me.id, classes: [] };
  const tell = (id: string): void =>
    events.append({ type: 'annotation', annotationId: id, sourceId: source.id, personId: me.id });
  for (const { one, number } of marksFirst(read)) {
    if (!one.ok) {
      refused.push({ number, why: one.why });
      continue;
    }
    const id = idFor(db, me.id, source.id, one.name);
    ids.set(one.name, id);
    if (authorOf(db, id) === me.id) {
      if (bringBack(db, me.id, id, now())) tell(id);
      counts.already++;
      continue;
    }
    if (one.type === 'mark') insertAnnotation(db, { ...one, ...into, id, rootId: null, parentId: null }, now());
    else {
      const parent = annotationFor(db, me.id, ids.get(one.to) ?? one.to);
      if (!parent || parent.sourceId !== source.id) {
        refused.push({ number, why: 'It answers an annotation that is neither in the file nor here.' });
        continue;
      }
      const reply = { kind: 'note', note: one.note, tags: [], anchor: null } as const;
      const thread = { rootId: parent.rootId ?? parent.id, parentId: parent.id };
      insertAnnotation(db, { ...into, ...reply, ...thread, id }, now());
    }
    tell(id);
    counts.brought++;
  }
  return { ...counts, refused: refused.sort((a, b) => a.number - b.number) };
}

/** Numbered as they stand in the file; an answer may stand there before what it answers. */
const marksFirst = (read: readonly Brought[]) =>
  read
    .map((one, n) => ({ one, number: n + 1 }))
    .sort((a, b) => Number(a.one.ok && a.one.type === 'reply') - Number(b.one.ok && b.one.type === 'reply'));

/**
 * The id an annotation of a file has here: its own where that is free or this person's, else one that follows from whose,
 * where and which it is, so that the same file brings the same again.
 */
function idFor(db: Db, me: PersonId, sourceId: SourceId, name: string): string {
  if (UUID_V7.test(name)) {
    const author = authorOf(db, name);
    if (author === undefined || (author === me && annotationFor(db, me, name)?.sourceId === sourceId)) return name;
  }
  const hex = createHash('sha256')
    .update(JSON.stringify([me, sourceId, name]))
    .digest('hex');
  // The form of a version 7 UUID (RFC 9562, 5.7), without a time.
  return `00000000-0000-7${hex.slice(0, 3)}-8${hex.slice(3, 6)}-${hex.slice(6, 18)}`;
}

/** What its author had deleted comes back with the file; false where it was there. */
function bringBack(db: Db, me: PersonId, id: string, now: string): boolean {
  const own = ownAnnotation(db, me, id);
  if (own === undefined || own.deletedAt === null) return false;
  const { version, kind, kindOwner, note } = own;
  return updateAnnotation(db, { id, version }, { kind, kindOwner, note, deletedAt: null }, now);
}
