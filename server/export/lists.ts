import { setImmediate } from 'node:timers/promises';
import type { FastifyInstance, FastifyReply } from 'fastify';
import JSZip from 'jszip';
import { bookmarksFile, fileNameOf, opmlFile } from '@avrelle/core/export';
import type { Api, QueryOf } from '@avrelle/core/api';
import { KIND_WORDS, STATE_WORDS, type SourceRow, type PersonId } from '@avrelle/core/wire';
import type { Context } from '../context';
import { feedsOf } from '../feeds/queries';
import { findSources, readQuery } from '../find/find';
import { askerOf } from '../find/asker-of';
import { serving } from '../serve';
import { sourceRowsOf } from '../sources/queries';
import { attachment } from './attachment';
import { csvOf, sendCsv } from './csv';
import { notesOf, originOf } from './routes';

const MOST = 100_000;
const AT_ONCE = 500;

/** The sources a search finds, or those chosen, as a table, as bookmarks or with their study notes, and the feeds one follows: for other programs. */
export function listExportRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const serve = serving(app, context);
  const found = (me: PersonId, query: QueryOf<Api['GET /api/sources.csv']>): SourceRow[] => {
    const asker = askerOf(context, me, query);
    const { ids } = findSources(db, readQuery(query.q), asker, { sort: 'title', offset: 0, limit: MOST });
    return Array.from({ length: Math.ceil(ids.length / AT_ONCE) }, (_, n) =>
      sourceRowsOf(db, asker.me, ids.slice(n * AT_ONCE, (n + 1) * AT_ONCE)),
    ).flat();
  };
  const file = (reply: FastifyReply, type: string, name: string): FastifyReply =>
    reply.type(type).header('content-disposition', attachment(name));
  const csv = (reply: FastifyReply, rows: readonly SourceRow[]) => sendCsv(reply, 'library.csv', tableOf(rows));
  const bookmarks = (reply: FastifyReply, rows: readonly SourceRow[]) =>
    file(reply, 'text/html; charset=utf-8', 'bookmarks.html').send(bookmarksFile('Library', rows));

  serve.file('GET /api/sources.csv', ({ me, query, reply }) => csv(reply, found(me.id, query)));
  serve.file('GET /api/sources/bookmarks.html', ({ me, query, reply }) => bookmarks(reply, found(me.id, query)));

  serve.file('POST /api/sources/take-out', async ({ me, body: { sourceIds, as }, request, reply }) => {
    const rows = sourceRowsOf(db, me.id, sourceIds);
    if (as === 'csv') return csv(reply, rows);
    if (as === 'bookmarks') return bookmarks(reply, rows);
    const archive = new JSZip();
    for (const { id, title } of rows) {
      // Others are answered in between.
      await setImmediate();
      const { words } = notesOf(context, me, id, { whose: 'mine', origin: originOf(request) });
      archive.file(freeName(archive, fileNameOf(title)), words);
    }
    return file(reply, 'application/zip', 'study-notes.zip').send(
      await archive.generateAsync({ type: 'nodebuffer', compression: 'DEFLATE' }),
    );
  });

  serve.file('GET /api/feeds.opml', ({ me, reply }) => {
    const feeds = feedsOf(db, me.id);
    return file(reply, 'text/x-opml; charset=utf-8', 'feeds.opml').send(opmlFile('Feeds', feeds, context.now()));
  });
}

/** Two sources may have one title. */
function freeName(archive: JSZip, name: string): string {
  for (let n = 1; ; n++) {
    const tried = n === 1 ? `${name}.md` : `${name} ${n}.md`;
    if (!archive.file(tried)) return tried;
  }
}

const tableOf = (rows: readonly SourceRow[]): string =>
  csvOf(
    [
      'title',
      'author',
      'site',
      'address',
      'doi',
      'type',
      'language',
      'published',
      'kept',
      'minutes',
      'read',
      'state',
      'marks',
      'tags',
      'remark',
    ],
    rows.map((s) => [
      s.title,
      s.author,
      s.site,
      s.address ?? '',
      s.doi,
      KIND_WORDS[s.kind],
      s.language,
      s.publishedAt ?? '',
      s.keptAt,
      Math.round(s.minutes),
      s.readShare,
      STATE_WORDS[s.state],
      s.marks,
      s.tags.join(' '),
      s.remark,
    ]),
  );
