import type { AnnotationGrouping } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { KIND_LOOK, kindFrom, type KindRow } from '../legend/queries';

/** An answer has the kind of what it answers. */
const FROM = 'FROM json_each(@seqs) j JOIN annotation a ON a.seq = j.value';
const KEYS: Readonly<Record<Exclude<AnnotationGrouping, 'kind'>, string>> = {
  source: `SELECT a.seq, a.source_id AS key, s.title AS name ${FROM} JOIN source s ON s.id = a.source_id ORDER BY j.key`,
  person: `SELECT a.seq, a.author_id AS key, p.name ${FROM} JOIN person p ON p.id = a.author_id ORDER BY j.key`,
  day: `SELECT a.seq, date(a.created_at, @ahead || ' minutes') AS key, '' AS name ${FROM} ORDER BY j.key`,
  tag: `SELECT a.seq, coalesce(t.tag, '') AS key, coalesce(t.tag, '') AS name ${FROM}
    LEFT JOIN annotation_tag t ON t.annotation_id = a.id ORDER BY j.key`,
};
const KINDS = `
  SELECT a.seq, coalesce(r.kind, a.kind) AS kind, ${KIND_LOOK} ${FROM} LEFT JOIN annotation r ON r.id = a.root_id
    LEFT JOIN kind k ON k.owner_id = coalesce(r.kind_owner, a.kind_owner) AND k.code = coalesce(r.kind, a.kind)
  ORDER BY j.key`;

/** An annotation, by its row number, in one of its groups. */
export interface Keyed {
  readonly seq: number;
  readonly key: string;
  readonly name: string;
}

/** In the order in which they are given. */
export function keyed(db: Db, seqs: readonly number[], by: AnnotationGrouping, ahead: number): Keyed[] {
  const values = { seqs: JSON.stringify(seqs), ahead: `${ahead >= 0 ? '+' : ''}${ahead}` };
  if (by !== 'kind') return db.all<Keyed>(KEYS[by], values);
  return db.all<KindRow & { readonly seq: number }>(KINDS, values).map((row) => {
    const { name } = kindFrom(row);
    return { seq: row.seq, key: name, name };
  });
}
