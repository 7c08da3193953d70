import type { AnnotationGroup, AnnotationGrouping } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import type { Asker } from './asker';
import { keyed, type Keyed } from './grouping-queries';

/** One place in a list: an annotation, and the group it stands under there, if any. */
export interface Listed {
  readonly seq: number;
  readonly group?: string;
}

/**
 * Annotations, by their row numbers, group by group, in each in the order they came; one with several tags stands under
 * each of them. Days come newest first, tags by their names and what bears none last, other groups as they first appear.
 */
export function groupedBy(
  db: Db,
  seqs: readonly number[],
  by: AnnotationGrouping,
  { ahead }: Pick<Asker, 'ahead'>,
): { readonly listed: readonly Listed[]; readonly groups: readonly AnnotationGroup[] } {
  const members = new Map<string, Keyed[]>();
  for (const row of keyed(db, seqs, by, ahead)) {
    const group = members.get(row.key);
    if (group) group.push(row);
    else members.set(row.key, [row]);
  }
  const inOrder = [...members].sort(ORDERS[by]);
  return {
    listed: inOrder.flatMap(([group, rows]) => rows.map(({ seq }) => ({ seq, group }))),
    groups: inOrder.map(([key, rows]) => ({ key, name: rows[0]!.name, total: rows.length })),
  };
}

type Entry = readonly [key: string, rows: readonly Keyed[]];
const asTheyCome = (): number => 0;
const ORDERS: Readonly<Record<AnnotationGrouping, (a: Entry, b: Entry) => number>> = {
  source: asTheyCome,
  person: asTheyCome,
  kind: asTheyCome,
  day: ([a], [b]) => (a < b ? 1 : -1),
  tag: ([a], [b]) => Number(a === '') - Number(b === '') || a.localeCompare(b),
};
