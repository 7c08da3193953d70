import type { FastifyInstance } from 'fastify';
import { escapeMarkdown, fileNameOf } from '@avrelle/core/export';
import { outward } from '@avrelle/core/note';
import type { Context } from '../context';
import { sendFile } from '../export/attachment';
import { originOf } from '../export/routes';
import { serving } from '../serve';
import { candidatesFor } from './candidates';
import { listNotes, openNote, patchNote, putExcerpts, putNote, restoreNote, sourceNote } from './notes';

/** Study notes: words of one's own with excerpts of what was marked. */
export function studyRoutes(app: FastifyInstance, context: Context): void {
  const serve = serving(app, context);

  serve('GET /api/notes', ({ me }) => listNotes(context, me));
  serve('PUT /api/notes/:id', ({ me, params: { id }, body }) => putNote(context, me, id, body));
  serve('GET /api/notes/:id', ({ me, params: { id } }) => openNote(context, me, id));
  serve('PATCH /api/notes/:id', ({ me, params: { id }, body }) => patchNote(context, me, id, body));
  serve('POST /api/notes/:id/restore', ({ me, params: { id } }) => restoreNote(context, me, id));
  serve('POST /api/notes/:id/excerpts', ({ me, params: { id }, body }) =>
    putExcerpts(context, me, id, body.annotationIds),
  );
  serve('GET /api/notes/:id/candidates', ({ me, params: { id }, query }) => candidatesFor(context, me, id, query));
  serve('POST /api/sources/:id/note', ({ me, params: { id } }) => sourceNote(context, me, id));

  serve.file('GET /api/notes/:id/note.md', ({ me, params: { id }, request, reply }) => {
    const { title, markdown } = openNote(context, me, id);
    const words = `# ${escapeMarkdown(title)}\n\n${outward(markdown, originOf(request))}`;
    return sendFile(reply, { type: 'text/markdown', name: `${fileNameOf(title)}.md` }, words);
  });
}
