import type { FastifyInstance } from 'fastify';
import { linksIn, parseLinkAddress } from '@avrelle/core/note';
import { TAG, topicPutSchema, type TopicNews, type TopicPage } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { parse } from '../parse';
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
export function topicRoutes(app: FastifyInstance, { db, now }: Context): void {
  const tagOf = (query: unknown): string => {
    const tag = String((query as { tag?: unknown }).tag ?? '').toLowerCase();
    if (!TAG.test(tag))
      throw new AppError(
        'invalid',
        {
          message: `Name the tag of the page: letters, digits, - _ and /, at most 60 characters. “${tag.slice(0, 60)}” is none.`,
        },
        { field: 'tag' },
      );
    return tag;
  };
  const page = (me: string, tag: string): TopicPage => {
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

  app.get('/api/topics', (request): TopicPage => page(personOf(request).id, tagOf(request.query)));

  /** Empty where nothing was written yet. */
  app.get('/api/topics/news', (request): TopicNews => {
    const me = personOf(request).id;
    const tag = tagOf(request.query);
    const written = topicOf(db, me, tag);
    return written ? topicNews(db, me, tag, written.writtenAt) : { sourceIds: [], annotationIds: [] };
  });

  app.put('/api/topics', (request): TopicPage => {
    const me = personOf(request).id;
    const tag = tagOf(request.query);
    const { version, text } = parse(topicPutSchema, request.body);
    db.transaction(() => {
      if (!writeTopic(db, me, tag, version, text, linksIn(text), now()))
        throw new AppError(
          'stale',
          { yours: version, current: topicOf(db, me, tag)?.version ?? 0 },
          { current: page(me, tag) },
        );
    });
    return page(me, tag);
  });

  /** `?to=avrelle:annotation/ID`, or a source: the tags whose pages of mine lead there. */
  app.get('/api/links/topics', (request): string[] => {
    const link = parseLinkAddress((request.query as { to?: string }).to ?? '');
    return link ? topicsLeadingTo(db, personOf(request).id, link) : [];
  });
}

/** The pages about a tag, and about those beneath it, go where the tag goes; where there is one already, they follow it. Taken away with the tag only when empty. */
export function moveTopics(db: Db, me: string, from: string, to: string, now: string): void {
  if (to === '') return;
  for (const topic of topicsBeneath(db, me, from)) {
    const tag = to + topic.tag.slice(from.length);
    const there = topicOf(db, me, tag);
    const text = [there?.text, topic.text].filter(Boolean).join('\n\n');
    removeTopic(db, me, topic.tag);
    writeTopic(db, me, tag, there?.version ?? 0, text, linksIn(text), now);
  }
}
