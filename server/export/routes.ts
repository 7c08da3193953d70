import type { FastifyInstance, FastifyRequest } from 'fastify';
import {
  describe,
  indexText,
  spotName,
  toFragment,
  toSelectors,
  type Anchor,
  type Selector,
  type Spot,
  type TextIndex,
} from '@avrelle/core/anchor';
import { fileNameOf, studyNotes, toWebAnnotation, type TakenMark } from '@avrelle/core/export';
import { toSvg } from '@avrelle/core/ink';
import { outward } from '@avrelle/core/note';
import type { Outline } from '@avrelle/core/text';
import type { Annotation, Me, SourceDetail, PersonId, SourceId } from '@avrelle/core/wire';
import { annotationsOf } from '../annotations/queries';
import type { Context } from '../context';
import { serving } from '../serve';
import { sourceDetail, versionText } from '../sources/queries';
import { attachment, sendFile } from './attachment';

export function exportRoutes(app: FastifyInstance, context: Context): void {
  const serve = serving(app, context);

  serve.file('GET /api/sources/:id/study-notes.md', ({ me, params, query: { whose }, request, reply }) => {
    const { source, words } = notesOf(context, me, params.id, { whose, origin: originOf(request) });
    return sendFile(reply, { type: 'text/markdown', name: `${fileNameOf(source.title)}.md` }, words);
  });

  serve.file('GET /api/sources/:id/annotations.jsonld', ({ me, params, query: { whose }, reply }) => {
    const { source, marks } = gather(context, me.id, params.id, whose);
    const text = versionText(context.db, source.versionId)!;
    const index = indexText(text.stream, JSON.parse(text.outline) as Outline);
    void reply
      .type('application/ld+json; profile="http://www.w3.org/ns/anno.jsonld"')
      .header('content-disposition', attachment(`${fileNameOf(source.title)}.jsonld`));
    return JSON.stringify(
      marks.map((a) => toWebAnnotation(a, source, selectorsOf(index, a))),
      null,
      2,
    );
  });
}

export const originOf = ({ protocol, host }: FastifyRequest): string => `${protocol}://${host}`;

/** The study notes of a source that somebody may read, in Markdown; addresses in them begin with `origin`. */
export function notesOf(
  context: Context,
  me: Me,
  id: SourceId,
  { whose, origin }: { readonly whose: Whose; readonly origin: string },
): { readonly source: SourceDetail; readonly words: string } {
  const { source, marks } = gather(context, me.id, id, whose);
  return { source, words: studyNotes(source, takenMarks(marks, origin), context.now(), me.name) };
}

type Whose = 'mine' | 'all';

function gather(
  { db }: Context,
  me: PersonId,
  id: string,
  whose: Whose,
): { readonly source: SourceDetail; readonly marks: Annotation[] } {
  const source = sourceDetail(db, me, id)!;
  const all = annotationsOf(db, me, source.id).filter((a) => !a.deleted);
  if (whose === 'all') return { source, marks: all };
  const mine = new Set(all.filter((a) => a.author.id === me && a.rootId === null).map((a) => a.id));
  return { source, marks: all.filter((a) => mine.has(a.rootId ?? a.id)) };
}

/** Where it stands in this version; one that is lost here is told by its words alone. */
function selectorsOf(index: TextIndex, { anchor, place }: Annotation): readonly Selector[] {
  if (!anchor) return [];
  if (anchor.spot) return spotSelectors(anchor.spot, anchor.quote);
  if (!place || place.start === null || place.end === null) return [{ type: 'TextQuoteSelector', ...anchor.quote }];
  return toSelectors(index, describe(index, { start: place.start, end: place.end }));
}

/** A drawing refines what it lies on: a page, a picture, or words. What means the whole source needs none. */
function spotSelectors(spot: Spot, quote: Anchor['quote']): readonly Selector[] {
  if (spot.type === 'whole') return [];
  const words: Selector = { type: 'TextQuoteSelector', ...quote };
  if (spot.type !== 'drawn')
    return [{ type: 'FragmentSelector', conformsTo: MEDIA_FRAGMENTS, value: toFragment(spot) }, words];
  const drawing: Selector = { type: 'SvgSelector', value: toSvg(spot, quote.exact.length) };
  const { tied } = spot;
  if (tied.to !== 'picture') return [{ ...words, refinedBy: drawing }];
  return [
    'page' in tied.on
      ? { type: 'FragmentSelector', conformsTo: PDF_FRAGMENTS, value: `page=${tied.on.page}`, refinedBy: drawing }
      : drawing,
    words,
  ];
}

const MEDIA_FRAGMENTS = 'http://www.w3.org/TR/media-frags/';
const PDF_FRAGMENTS = 'http://tools.ietf.org/rfc/rfc3778';

/** Marks and notes with what was answered, in the order given; addresses begin with `origin`. */
export function takenMarks(all: readonly Annotation[], origin: string): TakenMark[] {
  const replies = (id: string) =>
    all.filter((r) => r.rootId === id).map((r) => ({ author: r.author.name, note: outward(r.note, origin) }));
  return all
    .filter((a) => a.rootId === null && a.anchor)
    .map((a) => {
      const { spot, quote, position } = a.anchor!;
      return {
        start: a.place?.start ?? position.start,
        kind: a.kind,
        quote: spot && !isOfWords(spot) ? spotName(spot) : quote.exact,
        quoted: spot && !isOfWords(spot) ? undefined : a.quoted,
        what: spot && isOfWords(spot) ? spotName(spot) : '',
        note: outward(a.note, origin),
        tags: a.tags,
        author: a.author.name,
        replies: replies(a.id),
        address: `${origin}/source/${a.sourceId}?at=${a.id}`,
      };
    });
}

/** What is drawn over words means them; other spots stand for themselves. */
export const isOfWords = (spot: Spot): boolean => spot.type === 'drawn' && spot.tied.to !== 'picture';
