import type { FastifyInstance } from 'fastify';
import { indexText } from '@avrelle/core/anchor';
import type { Outline } from '@avrelle/core/text';
import type { BroughtIn } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import { authorOf, insertAnnotation } from '../annotations/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { kindsOf } from '../key/queries';
import { readId } from '../read-id';
import { sourceDetail, versionText } from '../sources/queries';
import { annotationsIn, readWebAnnotation } from './web-annotations';

const MOST = 2_000;

export function takeinRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, newId, events } = context;

  /** W3C annotations of another program become the sender's own, seen by them alone. The same file twice adds nothing. */
  app.post('/api/sources/:id/annotations.jsonld', (request): BroughtIn => {
    const me = personOf(request), source = sourceDetail(db, me.id, readId(request));
    if (!source) throw new AppError('not_found', { what: 'source' });
    const given = annotationsIn(request.body);
    if (given.length > MOST) throw new AppError('invalid', { message: `The file holds ${given.length} annotations; at most ${MOST} can be brought in at once.` });
    const text = versionText(db, source.versionId)!, index = indexText(text.stream, JSON.parse(text.outline) as Outline), kinds = kindsOf(db, me.id);
    const read = given.map((one) => readWebAnnotation(index, kinds, one));
    const refused = read.flatMap((r, n) => (r.ok ? [] : [{ number: n + 1, why: r.why }]));
    let brought = 0, already = 0;
    db.transaction(() => {
      for (const one of read) {
        if (!one.ok) continue;
        if (one.id && authorOf(db, one.id) === me.id) { already++; continue; }
        const id = one.id && authorOf(db, one.id) === undefined ? one.id : newId();
        insertAnnotation(db, { ...one, id, sourceId: source.id, versionId: source.versionId, authorId: me.id, rootId: null, parentId: null, classIds: [] }, now());
        events.append({ type: 'annotation', annotationId: id, sourceId: source.id, personId: me.id });
        brought++;
      }
    });
    return { brought, already, refused };
  });
}
