import type { FastifyInstance } from 'fastify';
import { suggestTags } from '@avrelle/core/gather';
import { TAG, type PersonId } from '@avrelle/core/wire';
import type { Context } from '../context';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { serving } from '../serve';
import { sourceDetail, versionText } from '../sources/queries';
import { topicsBeneath } from './topic-queries';
import { moveTopics } from './topics';
import { changeTag, hasTag, renamed, setTint, tagsBeneath, tagUses, tintsOf, usedTags } from './tag-queries';

/** One's own tags as such: renamed, merged, moved, tinted, taken away. */
export function tagRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;
  const serve = serving(app, context);

  serve('GET /api/sources/:id/tag-suggestions', ({ me, params }) => {
    const source = sourceDetail(db, me.id, params.id)!;
    const has = new Set(source.tags);
    const used = usedTags(db, me.id, source.id).filter((t) => !has.has(t.tag));
    return [...suggestTags({ title: source.title, text: versionText(db, source.versionId)!.stream }, used)];
  });

  serve('POST /api/tags/preview', ({ me: { id: me }, body: { from, to } }) => {
    checkNames(db, me, from, to);
    return { ...tagUses(db, me, from), beneath: tagsBeneath(db, me, from), merges: merged(db, me, from, to) };
  });

  serve('GET /api/tags/tints', ({ me }) => tintsOf(db, me.id));

  serve('PUT /api/tags/tint', ({ me, body: { tag, tint } }) =>
    db.transaction(() => {
      setTint(db, me.id, tag, tint);
      events.append({ type: 'library', personId: me.id });
    }),
  );

  serve('POST /api/tags/change', ({ me: { id: me }, body: { from, to, merge } }) => {
    if (to === from) return;
    checkNames(db, me, from, to);
    db.transaction(() => {
      const two = merged(db, me, from, to);
      if (two.length > 0 && !merge)
        throw new AppError('tag_in_use', { tags: two.map((tag) => `#${tag}`).join(', ') }, { field: 'to' });
      const touched = changeTag(db, me, { from, to }, context.now());
      moveTopics(db, me, { from, to }, context.now());
      for (const { id, sourceId } of touched)
        events.append({ type: 'annotation', annotationId: id, sourceId, personId: me });
      events.append({ type: 'library', personId: me });
    });
  });
}

/** A tag cannot stand beneath itself, and none beneath it may become longer than a tag can be. */
function checkNames(db: Db, me: PersonId, from: string, to: string): void {
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
function merged(db: Db, me: PersonId, from: string, to: string): string[] {
  if (to === '' || to === from) return [];
  const before = [from, ...tagsBeneath(db, me, from)];
  return before.map((tag) => renamed(tag, from, to)).filter((tag) => !before.includes(tag) && hasTag(db, me, tag));
}
