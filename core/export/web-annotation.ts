import { quotation } from '../markdown/quotation';
import type { Selector } from '../anchor/selectors';
import type { Annotation } from '../wire/annotation';

/** The property of a target that holds a drawing as we keep it. */
export const DRAWING = 'avrelle:drawing';

/** The property of a target that holds its quotation as Markdown, where its words were more than words. */
export const QUOTATION = 'avrelle:quotation';

/** One annotation as W3C Web Annotation JSON-LD (Recommendation of 23 February 2017). Selectors: all that lead to its passage. */
export function toWebAnnotation(
  annotation: Annotation,
  source: { address: string | null; id: string; title: string },
  selectors: readonly Selector[],
): Record<string, unknown> {
  return {
    '@context':
      Object.keys(ours(annotation)).length > 0
        ? ['http://www.w3.org/ns/anno.jsonld', { avrelle: 'urn:avrelle:' }]
        : 'http://www.w3.org/ns/anno.jsonld',
    id: `urn:uuid:${annotation.id}`,
    type: 'Annotation',
    motivation: motivationOf(annotation),
    creator: { id: `urn:uuid:${annotation.author.id}`, type: 'Person', name: annotation.author.name },
    created: annotation.createdAt,
    modified: annotation.updatedAt,
    ...bodies(annotation),
    target: annotation.rootId
      ? `urn:uuid:${annotation.parentId ?? annotation.rootId}`
      : {
          source: source.address ?? `urn:uuid:${source.id}`,
          ...(selectors.length ? { selector: selectors } : {}),
          ...ours(annotation),
        },
  };
}

/** What no selector says: how a drawing is tied to its words, and what these were within their line. Other programs pass it over. */
function ours({ anchor, quoted }: Annotation): Record<string, unknown> {
  return {
    ...(anchor?.spot?.type === 'drawn' ? { [DRAWING]: anchor.spot } : {}),
    ...(quoted ? { [QUOTATION]: quotation(quoted) } : {}),
  };
}

/** Motivations of the Web Annotation Vocabulary, 3.3.5. */
function motivationOf(annotation: Annotation): string {
  if (annotation.rootId) return 'replying';
  if (annotation.kind.code === 'question') return 'questioning';
  return annotation.note ? 'commenting' : 'highlighting';
}

function bodies(annotation: Annotation): Record<string, unknown> {
  const body = [
    ...(annotation.note
      ? [{ type: 'TextualBody', value: annotation.note, format: 'text/markdown', purpose: 'commenting' }]
      : []),
    ...annotation.tags.map((value) => ({ type: 'TextualBody', value, purpose: 'tagging' })),
    ...(annotation.rootId ? [] : [{ type: 'TextualBody', value: annotation.kind.name, purpose: 'classifying' }]),
  ];
  return body.length ? { body } : {};
}
