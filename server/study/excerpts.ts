import { spotName } from '@avrelle/core/anchor';
import { escapeMarkdown } from '@avrelle/core/export';
import { citation } from '@avrelle/core/gather';
import type { Kind } from '@avrelle/core/legend';
import { quotation } from '@avrelle/core/markdown';
import { placesIn, shortReference, writeExcerpt, type Current } from '@avrelle/core/study';
import type { Outline } from '@avrelle/core/text';
import type { Annotation, AnnotationId, PersonId, SourceId, SourceRow, VersionId } from '@avrelle/core/wire';
import { annotationsFor } from '../annotations/queries';
import type { Db } from '../db/database';
import { isOfWords } from '../export/routes';
import { sourceRowsOf, versionText } from '../sources/queries';
import { answersTo } from './queries';

/** An annotation as it is written into a note now. */
export interface CurrentExcerpt extends Current {
  readonly sourceId: SourceId;
  readonly kind: Kind;
  readonly reference: string;
}

/** Of annotations that somebody sees, how each would be written into a note, in the order given. */
export function currentExcerpts(db: Db, me: PersonId, ids: readonly AnnotationId[]): readonly CurrentExcerpt[] {
  const seen = new Map(annotationsFor(db, me, ids).flatMap((a) => (isExcerpt(a) ? [[a.id, a]] : [])));
  const answers = answersByRoot(db, me, [...seen.keys()]);
  const facts = new Map(
    sourceRowsOf(db, me, [...new Set([...seen.values()].map((a) => a.sourceId))]).map((row) => [row.id, row]),
  );
  const placeOf = placesOf(db);
  return ids.flatMap((id) => {
    const annotation = seen.get(id);
    const source = annotation && facts.get(annotation.sourceId);
    if (!source) return [];
    const reference = [shortReference(source), placeOf(annotation)].filter(Boolean).join(', ');
    const text = writeExcerpt({
      annotationId: id,
      passage: passageOf(annotation),
      reference,
      sign: annotation.kind.sign,
      by: annotation.author.id === me ? undefined : annotation.author.name,
      tags: annotation.tags,
      note: annotation.note,
      answers: answers.get(id) ?? [],
    });
    return [{ annotationId: id, text, sourceId: source.id, kind: annotation.kind, reference }];
  });
}

/** Only what stands in a source becomes an excerpt, not an answer, nor what was taken back. */
const isExcerpt = (a: Annotation): boolean => a.rootId === null && a.anchor !== null && !a.deleted;

/** The words of the passage in Markdown, with their links and emphasis; what is no words is named. */
function passageOf({ anchor, quoted }: Annotation): string {
  const { spot, quote } = anchor!;
  if (spot && !isOfWords(spot)) return `*${escapeMarkdown(spotName(spot))}*`;
  return quoted ? quotation(quoted) : quote.exact.split('\n').map(escapeMarkdown).join('\n\n');
}

function answersByRoot(
  db: Db,
  me: PersonId,
  roots: readonly AnnotationId[],
): ReadonlyMap<string, { author: string; note: string }[]> {
  const byRoot = new Map<string, { author: string; note: string }[]>();
  const answers = annotationsFor(db, me, answersTo(db, me, roots)).filter((a) => !a.deleted);
  for (const { rootId, author, note } of answers.sort((a, b) => (a.createdAt < b.createdAt ? -1 : 1)))
    byRoot.set(rootId!, [...(byRoot.get(rootId!) ?? []), { author: author.name, note }]);
  return byRoot;
}

/** Where in its source an annotation stands, by the newest version it was found in; each outline is read once. */
function placesOf(db: Db): (annotation: Annotation) => string {
  const known = new Map<VersionId, (start: number) => string>();
  const within = (id: VersionId): ((start: number) => string) => {
    const places = known.get(id) ?? placesIn(JSON.parse(versionText(db, id)?.outline ?? '[]') as Outline);
    known.set(id, places);
    return places;
  };
  return ({ anchor, place, versionId }) => {
    if (anchor!.spot?.type === 'whole') return '';
    return place?.start == null ? within(versionId)(anchor!.position.start) : within(place.versionId)(place.start);
  };
}

/** How the sources of a note are named in full, in the order of their words. */
export function referencesOf(
  db: Db,
  me: PersonId,
  ids: readonly SourceId[],
): { readonly sourceId: SourceId; readonly words: string }[] {
  const named = sourceRowsOf(db, me, ids).map((row: SourceRow) => ({ sourceId: row.id, words: citation(row) }));
  return named.sort((a, b) => a.words.localeCompare(b.words, 'en'));
}
