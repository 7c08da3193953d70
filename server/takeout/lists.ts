import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import Papa from 'papaparse';
import { bookmarksFile, opmlFile } from '@avrelle/core/export';
import { KIND_WORDS, STATE_WORDS, type SourceRow } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { feedsOf } from '../feeds/queries';
import { findSources, readQuery } from '../find/find';
import { askerOf, queryOf } from '../find/routes';
import { sourceRowsOf } from '../sources/queries';

const MOST = 100_000, AT_ONCE = 500;

/** The sources a search finds as a table or as bookmarks, and the feeds one follows: for other programs. */
export function listTakeoutRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const found = (request: FastifyRequest): SourceRow[] => {
    const asker = askerOf(context, request), { ids } = findSources(db, readQuery(queryOf(request).q), asker, { sort: 'title', offset: 0, limit: MOST });
    return Array.from({ length: Math.ceil(ids.length / AT_ONCE) }, (_, n) => sourceRowsOf(db, asker.me, ids.slice(n * AT_ONCE, (n + 1) * AT_ONCE))).flat();
  };
  const file = (reply: FastifyReply, type: string, name: string): FastifyReply => reply.type(`${type}; charset=utf-8`).header('content-disposition', `attachment; filename="${name}"`);

  app.get('/api/sources.csv', (request, reply) => {
    const rows = found(request);
    void file(reply, 'text/csv', 'library.csv');
    // RFC 4180; a value that a spreadsheet would take for a formula is marked as text.
    return Papa.unparse({ fields: ['title', 'author', 'site', 'address', 'doi', 'type', 'language', 'published', 'kept', 'minutes', 'read', 'state', 'marks', 'tags', 'remark'], data: rows.map((s) => [s.title, s.author, s.site, s.address ?? '', s.doi, KIND_WORDS[s.kind], s.language, s.publishedAt ?? '', s.keptAt, Math.round(s.minutes), s.readShare, STATE_WORDS[s.state], s.marks, s.tags.join(' '), s.remark]) }, { escapeFormulae: true, newline: '\r\n' });
  });

  app.get('/api/sources/bookmarks.html', (request, reply) => {
    void file(reply, 'text/html', 'bookmarks.html');
    return bookmarksFile('Library', found(request));
  });

  app.get('/api/feeds.opml', (request, reply) => {
    const feeds = feedsOf(db, personOf(request).id);
    void file(reply, 'text/x-opml', 'feeds.opml');
    return opmlFile('Feeds', feeds, context.now());
  });
}
