/* eslint-disable max-params -- its calls are read as the columns of a table, one mark a line */
import type { KindCode } from '@avrelle/core/legend';

export type SourceKey =
  | 'marsh'
  | 'pegs'
  | 'packet'
  | 'creek'
  | 'keeper'
  | 'lavender'
  | 'lagoon'
  | 'dredger'
  | 'sluice'
  | 'report'
  | 'booklet'
  | 'walk'
  | 'readings'
  | 'dawn'
  | 'thread'
  | 'light';
export type AudienceKey = 'me' | 'A' | 'B' | 'AB';

export interface DemoMark {
  readonly source: SourceKey;
  readonly by: string;
  readonly kind: KindCode;
  /** The passage, word for word. */
  readonly quote: string;
  readonly note?: string;
  readonly tags?: string;
  readonly for: AudienceKey;
  readonly held?: true;
  readonly teachersOnly?: true;
  /** Only for the group of whoever writes it. */
  readonly inOwnGroup?: true;
  readonly daysAgo: number;
  readonly replies?: readonly (readonly [by: string, note: string])[];
}

type More = Partial<Pick<DemoMark, 'note' | 'tags' | 'replies'>>;
export const mark = (
  source: SourceKey,
  by: string,
  kind: KindCode,
  audience: AudienceKey,
  daysAgo: number,
  quote: string,
  note?: string,
  tags?: string,
  replies?: More['replies'],
): DemoMark => ({
  source,
  by,
  kind,
  for: audience,
  daysAgo,
  quote,
  ...(note ? { note } : {}),
  ...(tags ? { tags } : {}),
  ...(replies ? { replies } : {}),
});
