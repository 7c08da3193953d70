import type { AnnotationHit } from '@avrelle/core/wire';
import { day } from '../ui/when';

export const GROUPINGS = ['none', 'source', 'tag', 'kind', 'day', 'person'] as const;
export type Grouping = (typeof GROUPINGS)[number];
export const GROUP_WORDS: Readonly<Record<Grouping, string>> = { none: 'one list', source: 'by source', tag: 'by tag', kind: 'by kind', day: 'by day', person: 'by person' };

export interface Group { readonly name: string; readonly hits: readonly AnnotationHit[] }

/** Hits in groups, each in the order it had; one with several tags stands under each of them. */
export function grouped(hits: readonly AnnotationHit[], by: Grouping, now = new Date()): readonly Group[] {
  const groups = new Map<string, AnnotationHit[]>();
  for (const hit of hits) for (const name of namesOf(hit, by, now)) { const group = groups.get(name); if (group) group.push(hit); else groups.set(name, [hit]); }
  const listed = [...groups].map(([name, of]) => ({ name, hits: of }));
  return by === 'tag' ? listed.sort((a, b) => Number(a.name === NO_TAG) - Number(b.name === NO_TAG) || a.name.localeCompare(b.name)) : listed;
}

const NO_TAG = 'Without a tag';

function namesOf(hit: AnnotationHit, by: Grouping, now: Date): readonly string[] {
  switch (by) {
    case 'none': return [''];
    case 'source': return [hit.title];
    case 'tag': return hit.tags.length ? hit.tags.map((t) => `#${t}`) : [NO_TAG];
    case 'kind': return [hit.kind.name];
    case 'day': return [day(hit.createdAt, now)];
    case 'person': return [hit.author.name];
  }
}
