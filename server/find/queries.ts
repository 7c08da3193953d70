import { type Query, asksWords } from '@avrelle/core/query';
import type {
  AnnotationSort,
  SourceSort,
  AnnotationId,
  ClassId,
  GroupId,
  ClassRole,
  PersonId,
  SourceId,
} from '@avrelle/core/wire';
import type { Db } from '../db/database';
import type { Value } from '../db/statement';
import { inlinesOf } from '../annotations/quotation-queries';
import { classesShown, FOR_WHOM, REACH, sees, seesByReach } from '../access/visible-queries';
import { KIND_LOOK, type KindRow } from '../legend/queries';
import { annotationCondition, besideWords, necessaryWords } from './annotation-queries';
import type { Asker } from './asker';
import { SOURCE_JOINS } from './common-queries';
import { sourceCondition } from './source-queries';
import { Values } from './values';
import { forAsker, wordsQuery } from './words';

export interface Statement {
  readonly sql: string;
  readonly values: Readonly<Record<string, Value>>;
}
export interface Page<Sort> {
  readonly sort: Sort;
  readonly offset: number;
  readonly limit: number;
}

/**
 * Up to so many are ordered by bm25: it counts all that hold a word, whoever may see them, and says little of words that
 * are nearly everywhere. Beyond, what bears them in its title or note comes first, and then what is newest.
 */
const MOST_RANKED = 1_000;
const FEW = {
  source: 'SELECT 1 AS one FROM source_words WHERE source_words MATCH @words LIMIT 1 OFFSET @most',
  annotation: 'SELECT 1 AS one FROM annotation_words WHERE annotation_words MATCH @words LIMIT 1 OFFSET @most',
} as const;
const areFew = (db: Db, of: keyof typeof FEW, words: string): boolean =>
  db.get(FEW[of], { words, most: MOST_RANKED }) === undefined;

const READABLE = 's.id IN (SELECT source_id FROM source_visible WHERE person_id = @me)';

/** Titles count most, then what is said of a source, then its text (weights in the order of the index's columns). */
const SOURCE_RANK = 'bm25(source_words, 10.0, 4.0, 0.0, 1.0)';
const SOURCE_ORDER: Readonly<Record<SourceSort, string>> = {
  best: 'coalesce(best.score, 0), coalesce(h.touched_at, s.kept_at) DESC',
  touched: 'coalesce(h.touched_at, s.kept_at) DESC',
  saved: 's.kept_at DESC',
  title: 'folded(s.title)',
  author: "s.author = '', folded(s.author), folded(s.title)",
  minutes: 's.minutes',
  longest: 's.minutes DESC',
  progress: 'coalesce(h.read_share, 0) DESC',
  marks:
    '(SELECT count(*) FROM annotation x WHERE x.source_id = s.id AND x.root_id IS NULL AND x.deleted_at IS NULL) DESC',
};

/** Ids of the sources a query is met by, a page of them, each with how many there are in all. */
export function sourcesStatement(
  db: Db,
  query: Query | undefined,
  asker: Asker,
  { sort, offset, limit }: Page<SourceSort>,
): Statement {
  const values = new Values();
  const words = asksWords(query)
    .map((w) => wordsQuery(w.words, w.phrase))
    .join(' OR ');
  const ranked = sort === 'best' && words !== '' && areFew(db, 'source', `{title about stream} : (${words})`);
  const best = ranked
    ? values.table(
        `SELECT rowid AS seq, ${SOURCE_RANK} AS score FROM source_words WHERE source_words MATCH ${values.hold(`{title about stream} : (${words})`)}`,
      )
    : '';
  const titled =
    sort === 'best' && words !== '' && !ranked
      ? `t.seq IN (SELECT rowid FROM source_words WHERE source_words MATCH ${values.hold(`{title about} : (${words})`)}) DESC, `
      : '';
  const where = sourceCondition(query, asker, values);
  const sql = `${values.with}
    SELECT s.id, count(*) OVER () AS total FROM source s ${SOURCE_JOINS}${ranked ? ` LEFT JOIN ${best} best ON best.seq = t.seq` : ''}
    WHERE ${READABLE} AND ${where}
    ORDER BY ${titled}${ranked || sort !== 'best' ? SOURCE_ORDER[sort] : SOURCE_ORDER.touched}, s.id DESC LIMIT ${values.hold(limit)} OFFSET ${values.hold(offset)}`;
  return { sql, values: { me: asker.me, ...values.bound } };
}

/** How many sources a query is met by. */
export function countStatement(query: Query | undefined, asker: Asker): Statement {
  const values = new Values();
  const where = sourceCondition(query, asker, values);
  return {
    sql: `${values.with} SELECT count(*) AS total FROM source s ${SOURCE_JOINS} WHERE ${READABLE} AND ${where}`,
    values: { me: asker.me, ...values.bound },
  };
}

const ANNOTATION_ORDER: Readonly<Record<AnnotationSort, string>> = {
  best: "x.note = '', best.score, x.created_at DESC",
  newest: 'x.created_at DESC',
  oldest: 'x.created_at',
  place: 'folded(s.title), s.id, x.start',
  author: 'folded(p.name), x.created_at DESC',
};

/** Row numbers of all annotations a query is met by, in their order: counting them while they are sorted takes longer than to give them. */
export function annotationsStatement(db: Db, query: Query | undefined, asker: Asker, sort: AnnotationSort): Statement {
  const values = new Values();
  const words = necessaryWords(query);
  const ranked = sort === 'best' && words !== undefined && areFew(db, 'annotation', words);
  const match = words === undefined ? forAsker(asker) : forAsker(asker, words);
  const best = values.table(
    `SELECT rowid AS seq, ${ranked ? 'bm25(annotation_words, 1.0, 1.0, 0.0)' : '0'} AS score FROM annotation_words WHERE annotation_words MATCH ${values.hold(match)}`,
  );
  const reach = values.table(REACH);
  const where = annotationCondition(words === undefined ? query : besideWords(query), asker, values);
  const sql = `${values.with}
    SELECT x.seq FROM ${best} best CROSS JOIN annotation x ON x.seq = best.seq LEFT JOIN source s ON s.id = x.source_id ${SOURCE_JOINS} LEFT JOIN person p ON p.id = x.author_id
    WHERE x.source_id IN (SELECT source_id FROM source_visible WHERE person_id = @me) AND ${where} AND ${seesByReach('x', reach)}
    ORDER BY ${sort === 'best' && words === undefined ? ANNOTATION_ORDER.newest : ANNOTATION_ORDER[sort]}, x.seq DESC`;
  return { sql, values: { me: asker.me, ...values.bound } };
}

export interface HitRow extends KindRow {
  seq: number;
  id: string;
  sourceId: SourceId;
  rootId: AnnotationId | null;
  parentId: string | null;
  title: string;
  site: string;
  sourceKind: string;
  language: string;
  authorId: PersonId;
  author: string;
  quote: string;
  note: string;
  createdAt: string;
  version: number;
  start: number;
  tags: string;
  classes: string;
  teachersOnly: number;
  /** JSON of `InGroup`s. */
  groups: string;
  held: string;
  from: number | null;
  inlines: string | null;
}
/** An answer has the kind of what it answers, and is about its words. What is given out is asked of the rule itself. */
const HITS = `
  SELECT a.seq, a.id, a.source_id, a.root_id, a.parent_id, s.title, s.site, s.kind AS source_kind, s.language, a.author_id, p.name AS author, coalesce(r.quote, a.quote) AS quote, a.note, a.created_at, a.version, coalesce(r.start, a.start) AS start, coalesce(r.kind, a.kind) AS kind, ${KIND_LOOK},
    (SELECT json_group_array(tag) FROM annotation_tag t WHERE t.annotation_id = a.id) AS tags,
    ${classesShown('a')} AS classes, ${FOR_WHOM},
    coalesce(r.anchor, a.anchor) ->> '$.position.start' AS "from", CASE WHEN r.id IS NULL THEN ${inlinesOf('a')} ELSE ${inlinesOf('r')} END AS inlines
  FROM json_each(@seqs) j JOIN annotation a ON a.seq = j.value AND ${sees('a')} JOIN source s ON s.id = a.source_id JOIN person p ON p.id = a.author_id LEFT JOIN annotation r ON r.id = a.root_id
    LEFT JOIN kind k ON k.owner_id = coalesce(r.kind_owner, a.kind_owner) AND k.code = coalesce(r.kind, a.kind)
  ORDER BY j.key`;
const STREAMS =
  'SELECT s.id, t.stream, t.outline FROM json_each(@ids) j JOIN source s ON s.id = j.value JOIN version_text t ON t.version_id = s.current_version';
const NEAR =
  "SELECT term, sum(doc) AS uses FROM (SELECT term, doc FROM source_vocabulary WHERE term >= @from AND term < @to UNION ALL SELECT term, doc FROM annotation_vocabulary WHERE term >= @from AND term < @to AND col IN ('quote', 'note')) GROUP BY term";
const MY_CLASSES = 'SELECT class_id AS id, role, group_id FROM membership WHERE person_id = ?';

/** As run, of the first column alone. */
export const column = (db: Db, { sql, values }: Statement): number[] =>
  db.raw.prepare(sql).pluck().all(values) as number[];
export const run = <Row>(db: Db, { sql, values }: Statement): Row[] => db.all<Row>(sql, values);
export const hits = (db: Db, me: PersonId, seqs: readonly number[]): HitRow[] =>
  db.all<HitRow>(HITS, { me, seqs: JSON.stringify(seqs) });
/** The texts of sources, which the caller has found readable. */
export const streams = (db: Db, ids: readonly string[]) =>
  new Map(
    db
      .all<{ id: string; stream: string; outline: string }>(STREAMS, { ids: JSON.stringify(ids) })
      .map((r) => [r.id, r]),
  );
/** All words of the indexes, whoever's, from one up to another, with how many texts and marks hold them. */
export const wordsBetween = (db: Db, from: string, to: string) =>
  db.all<{ term: string; uses: number }>(NEAR, { from, to });
interface MyClass {
  readonly id: ClassId;
  readonly role: ClassRole;
  readonly groupId: GroupId | null;
}
export const myClasses = (db: Db, me: PersonId): MyClass[] => db.all<MyClass>(MY_CLASSES, me);
