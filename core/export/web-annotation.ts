import type { Annotation } from '../wire/annotation';

/** One annotation as W3C Web Annotation JSON-LD (Recommendation of 23 February 2017). */
export function toWebAnnotation(annotation: Annotation, source: { address: string | null; id: string; title: string }): Record<string, unknown> {
  return {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: `urn:uuid:${annotation.id}`,
    type: 'Annotation',
    motivation: motivationOf(annotation),
    creator: { id: `urn:uuid:${annotation.author.id}`, type: 'Person', name: annotation.author.name },
    created: annotation.createdAt,
    modified: annotation.updatedAt,
    ...bodies(annotation),
    target: annotation.rootId ? `urn:uuid:${annotation.parentId ?? annotation.rootId}` : target(annotation, source.address ?? `urn:uuid:${source.id}`),
  };
}

/** Motivations of the Web Annotation Vocabulary, 3.3.5. */
function motivationOf(annotation: Annotation): string {
  if (annotation.rootId) return 'replying';
  if (annotation.kind === 'question') return 'questioning';
  return annotation.note ? 'commenting' : 'highlighting';
}

function bodies(annotation: Annotation): Record<string, unknown> {
  const body = [
    ...(annotation.note ? [{ type: 'TextualBody', value: annotation.note, format: 'text/markdown', purpose: 'commenting' }] : []),
    ...annotation.tags.map((value) => ({ type: 'TextualBody', value, purpose: 'tagging' })),
    ...(annotation.rootId ? [] : [{ type: 'TextualBody', value: annotation.kind, purpose: 'classifying' }]),
  ];
  return body.length ? { body } : {};
}

function target(annotation: Annotation, source: string): Record<string, unknown> {
  const anchor = annotation.anchor;
  if (!anchor) return { source };
  return {
    source,
    selector: [
      { type: 'TextQuoteSelector', ...anchor.quote },
      { type: 'TextPositionSelector', ...anchor.position },
    ],
  };
}
