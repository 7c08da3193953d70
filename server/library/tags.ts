import type { FastifyInstance } from 'fastify';
import { suggestTags } from '@avrelle/core/gather';
import { TAG, tagChangeSchema, tagTintSchema, type TagPreview } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { parse } from '../parse';
import { readId } from '../read-id';
import { sourceDetail, versionText } from '../sources/queries';
import { topicsBeneath } from './topic-queries';
import { moveTopics } from './topics';
import { changeTag, hasTag, renamed, setTint, tagsBeneath, tagUses, tintsOf, usedTags } from './tag-queries';

/** One's own tags as such: renamed, merged, moved, tinted, taken away. */
export function tagRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;

  /** From what the source says, and from habit; those it bears are left out. */
  app.get('/api/sources/:id/tag-suggestions', (request): readonly string[] => {
    const me = personOf(request).id;
    const source = sourceDetail(db, me, readId(request));
    if (!source) throw new AppError('not_found', { what: 'source' });
    const bears = new Set(source.tags);
    const used = usedTags(db, me, source.id).filter((t) => !bears.has(t.tag));
    return suggestTags({ title: source.title, text: versionText(db, source.versionId)!.stream }, used);
  });

  app.post('/api/tags/preview', (request): TagPreview => {
    const me = personOf(request).id;
    const { from, to = '' } = parse(tagChangeSchema, request.body);
    checkNames(db, me, from, to);
    return { ...tagUses(db, me, from), beneath: tagsBeneath(db, me, from), merges: merged(db, me, from, to) };
  });

  app.get('/api/tags/tints', (request): Readonly<Record<string, string>> => tintsOf(db, personOf(request).id));

  app.put('/api/tags/tint', (request, reply) => {
    const me = personOf(request).id;
    const { tag, tint } = parse(tagTintSchema, request.body);
    db.transaction(() => {
      setTint(db, me, tag, tint);
      events.append({ type: 'library', personId: me });
    });
    return reply.code(204).send();
  });

  app.post('/api/tags/change', (request, reply) => {
    const me = personOf(request).id;
    const { from, to = '', merge } = parse(tagChangeSchema, request.body);
    if (to === from) return reply.code(204).send();
    checkNames(db, me, from, to);
    db.transaction(() => {
      const two = merged(db, me, from, to);
      if (two.length > 0 && !merge)
        throw new AppError('tag_in_use', { tags: two.map((tag) => `#${tag}`).join(', ') }, { field: 'to' });
      const touched = changeTag(db, me, from, to, context.now());
      moveTopics(db, me, from, to, context.now());
      for (const { id, sourceId } of touched)
        events.append({ type: 'annotation', annotationId: id, sourceId, personId: me });
      events.append({ type: 'library', personId: me });
    });
    return reply.code(204).send();
  });
}

/** A tag cannot stand beneath itself, and none beneath it may become longer than a tag can be. */
function checkNames(db: Db, me: string, from: string, to: string): void {
  if (to === '' || to === from) return;
  const refuse = (message: string): never => {
    throw new AppError('invalid', { message }, { field: 'to' });
  };
  if (to.startsWith(`${from}/`))
    refuse(`“${from}” cannot go beneath itself. Give it another name first, or choose another place for it.`);
  const named = [...tagsBeneath(db, me, from), ...topicsBeneath(db, me, from).map((t) => t.tag)];
  const long = named.find((tag) => !TAG.test(renamed(tag, from, to)));
  if (long)
    refuse(
      `#${long} would become #${renamed(long, from, to)}: a tag has at most 60 characters. Choose a shorter name.`,
    );
}

/** Names the tag and those beneath it would get that other tags have. */
function merged(db: Db, me: string, from: string, to: string): string[] {
  if (to === '' || to === from) return [];
  const before = [from, ...tagsBeneath(db, me, from)];
  return before.map((tag) => renamed(tag, from, to)).filter((tag) => !before.includes(tag) && hasTag(db, me, tag));
}
