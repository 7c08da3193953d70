import type { FastifyInstance } from 'fastify';
import { suggestTags } from '@avrelle/core/gather';
import { tagChangeSchema, tagTintSchema, type TagPreview } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parse } from '../parse';
import { readId } from '../read-id';
import { sourceDetail, versionText } from '../sources/queries';
import { moveTopics } from './topics';
import { bearing, changeTag, hasTag, setTint, tagsBeneath, tagUses, tintsOf, usedTags } from './queries';

/** One's own tags as such: renamed, merged, moved, tinted, taken away. */
export function tagRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;

  /** From what the source says, and from habit; those it bears are left out. */
  app.get('/api/sources/:id/tag-suggestions', (request): readonly string[] => {
    const me = personOf(request).id, source = sourceDetail(db, me, readId(request));
    if (!source) throw new AppError('not_found', { what: 'source' });
    const bears = new Set(source.tags);
    return suggestTags({ title: source.title, text: versionText(db, source.versionId)!.stream }, usedTags(db, me, source.id).filter((t) => !bears.has(t.tag)));
  });

  app.post('/api/tags/preview', (request): TagPreview => {
    const me = personOf(request).id, { from, to = '' } = parse(tagChangeSchema, request.body);
    return { ...tagUses(db, me, from), beneath: tagsBeneath(db, me, from), merges: to !== '' && to !== from && hasTag(db, me, to) };
  });

  app.get('/api/tags/tints', (request): Readonly<Record<string, string>> => tintsOf(db, personOf(request).id));

  app.put('/api/tags/tint', (request, reply) => {
    const me = personOf(request).id, { tag, tint } = parse(tagTintSchema, request.body);
    db.transaction(() => { setTint(db, me, tag, tint); events.append({ type: 'library', personId: me }); });
    return reply.code(204).send();
  });

  app.post('/api/tags/change', (request, reply) => {
    const me = personOf(request).id, { from, to = '' } = parse(tagChangeSchema, request.body);
    if (to === from) return reply.code(204).send();
    if (to.startsWith(`${from}/`)) throw new AppError('invalid', { message: `“${from}” cannot go beneath itself. Give it another name first, or choose another place for it.` }, { field: 'to' });
    db.transaction(() => {
      const touched = bearing(db, me, from);
      changeTag(db, me, from, to, context.now());
      moveTopics(db, me, from, to, context.now());
      for (const { id, sourceId } of touched) events.append({ type: 'annotation', annotationId: id, sourceId, personId: me });
      events.append({ type: 'library', personId: me });
    });
    return reply.code(204).send();
  });
}
