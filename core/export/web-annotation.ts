import type { Selector } from '../anchor/selectors';
import type { Annotation } from '../wire/annotation';

/** The property of a target that holds a drawing as we keep it. */
export const DRAWING = 'avrelle:drawing';

/** One annotation as W3C Web Annotation JSON-LD (Recommendation of 23 February 2017). Selectors: all that lead to its passage. */
export function toWebAnnotation(annotation: Annotation, source: { address: string | null; id: string; title: string }, selectors: readonly Selector[]): Record<string, unknown> {
  return {
    '@context': annotation.anchor?.spot?.type === 'drawn' ? ['http://www.w3.org/ns/anno.jsonld', { avrelle: 'urn:avrelle:' }] : 'http://www.w3.org/ns/anno.jsonld',
    id: `urn:uuid:${annotation.id}`,
    type: 'Annotation',
    motivation: motivationOf(annotation),
    creator: { id: `urn:uuid:${annotation.author.id}`, type: 'Person', name: annotation.author.name },
    created: annotation.createdAt,
    modified: annotation.updatedAt,
    ...bodies(annotation),
    target: annotation.rootId ? `urn:uuid:${annotation.parentId ?? annotation.rootId}` : { source: source.address ?? `urn:uuid:${source.id}`, ...(selectors.length ? { selector: selectors } : {}), ...drawingOf(annotation) },
  };
}

/** How a drawing is tied to its words, which no selector says: what other programs pass over, ours takes in again. */
function drawingOf({ anchor }: Annotation): Record<string, unknown> {
  return anchor?.spot?.type === 'drawn' ? { [DRAWING]: anchor.spot } : {};
}

/** Motivations of the Web Annotation Vocabulary, 3.3.5. */
function motivationOf(annotation: Annotation): string {
  if (annotation.rootId) return 'replying';
  if (annotation.kind.code === 'question') return 'questioning';
  return annotation.note ? 'commenting' : 'highlighting';
}

function bodies(annotation: Annotation): Record<string, unknown> {
  const body = [
    ...(annotation.note ? [{ type: 'TextualBody', value: annotation.note, format: 'text/markdown', purpose: 'commenting' }] : []),
    ...annotation.tags.map((value) => ({ type: 'TextualBody', value, purpose: 'tagging' })),
    ...(annotation.rootId ? [] : [{ type: 'TextualBody', value: annotation.kind.name, purpose: 'classifying' }]),
  ];
  return body.length ? { body } : {};
}
