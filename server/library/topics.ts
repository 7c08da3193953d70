import type { NewName } from './tag-queries';
import type { FastifyInstance } from 'fastify';
import { parseLinkAddress } from '@avrelle/core/note';
import type { TopicPage, PersonId } from '@avrelle/core/wire';
import type { Context } from '../context';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { serving } from '../serve';
import {
  pairsOf,
  relatedTags,
  removeTopic,
  topicNews,
  topicOf,
  topicsBeneath,
  topicsLeadingTo,
  writeTopic,
} from './topic-queries';

/** A page of one's own about a tag. `?tag=`: a tag may hold slashes. */
export function topicRoutes(app: FastifyInstance, context: Context): void {
  const { db, now } = context;
  const serve = serving(app, context);
  const page = (me: PersonId, tag: string): TopicPage => {
    const related = relatedTags(db, me, tag);
    return {
      ...(topicOf(db, me, tag) ?? { tag, text: '', writtenAt: null, version: 0 }),
      related,
      pairs: pairsOf(
        db,
        me,
        related.map((r) => r.tag),
      ),
    };
  };

  serve('GET /api/topics', ({ me, query: { tag } }) => page(me.id, tag));

  /** Empty where nothing was written yet. */
  serve('GET /api/topics/news', ({ me, query: { tag } }) => {
    const written = topicOf(db, me.id, tag);
    return written ? topicNews(db, me.id, tag, written.writtenAt) : { sourceIds: [], annotationIds: [] };
  });

  serve('PUT /api/topics', ({ me: { id: me }, query: { tag }, body: { version, text } }) => {
    db.transaction(() => {
      if (!writeTopic(db, me, { tag, version, text }, now()))
        throw new AppError(
          'stale',
          { yours: version, current: topicOf(db, me, tag)?.version ?? 0 },
          { current: page(me, tag) },
        );
    });
    return page(me, tag);
  });

  serve('GET /api/links/topics', ({ me, query }) => {
    const link = parseLinkAddress(query.to);
    return link ? topicsLeadingTo(db, me.id, link) : [];
  });
}

/** The pages about a tag, and about those beneath it, go where the tag goes; where there is one already, they follow it. Taken away with the tag only when empty. */
export function moveTopics(db: Db, me: PersonId, { from, to }: NewName, now: string): void {
  if (to === '') return;
  for (const topic of topicsBeneath(db, me, from)) {
    const tag = to + topic.tag.slice(from.length);
    const there = topicOf(db, me, tag);
    const text = [there?.text, topic.text].filter(Boolean).join('\n\n');
    removeTopic(db, me, topic.tag);
    writeTopic(db, me, { tag, version: there?.version ?? 0, text }, now);
  }
}
