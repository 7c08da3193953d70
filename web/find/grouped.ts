import type { AnnotationGroup, AnnotationGrouping, AnnotationHit } from '@avrelle/core/wire';
import { day } from '../ui/when';

export const GROUPINGS = ['none', 'source', 'tag', 'kind', 'day', 'person'] as const satisfies readonly (
  'none' | AnnotationGrouping
)[];
export type Grouping = (typeof GROUPINGS)[number];
export const GROUP_WORDS: Readonly<Record<Grouping, string>> = {
  none: 'one list',
  source: 'by source',
  tag: 'by tag',
  kind: 'by kind',
  day: 'by day',
  person: 'by person',
};
export const groupingAsked = (by: Grouping): AnnotationGrouping | undefined => (by === 'none' ? undefined : by);

export interface Group {
  readonly key: string;
  /** Empty where all stand in one list. */
  readonly name: string;
  /** How many it has in all; those that are here may be fewer. */
  readonly total: number;
  readonly hits: readonly AnnotationHit[];
}

/** Hits as the server listed them, group by group. */
export function grouped(
  hits: readonly AnnotationHit[],
  groups: readonly AnnotationGroup[],
  by: Grouping,
  now = new Date(),
): readonly Group[] {
  const known = new Map(groups.map((g) => [g.key, g]));
  const inGroup = new Map<string, AnnotationHit[]>();
  for (const hit of hits) {
    const key = hit.group ?? '';
    inGroup.set(key, [...(inGroup.get(key) ?? []), hit]);
  }
  return [...inGroup].map(([key, own]) => ({
    key,
    name: nameOf(by, key, known.get(key)?.name ?? '', now),
    total: known.get(key)?.total ?? own.length,
    hits: own,
  }));
}

function nameOf(by: Grouping, key: string, name: string, now: Date): string {
  switch (by) {
    case 'none':
      return '';
    case 'tag':
      return key === '' ? 'Without a tag' : `#${key}`;
    case 'day':
      return day(`${key}T12:00:00`, now);
    case 'source':
    case 'kind':
    case 'person':
      return name;
  }
}
