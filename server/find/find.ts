import {
  asksWords,
  markPlaces,
  markQuote,
  meaningful,
  parseQuery,
  placesOf,
  snippetOf,
  type Marked,
  type Query,
} from '@avrelle/core/query';
import { plainWords } from '@avrelle/core/markdown';
import type { Outline } from '@avrelle/core/text';
import type {
  AnnotationGrouping,
  AnnotationHit,
  AnnotationPage,
  AnnotationSort,
  InGroup,
  SourceKind,
  SourcePage,
  SourceSort,
  PersonId,
} from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { readInlines } from '../annotations/quotation-queries';
import { kindFrom } from '../legend/queries';
import { sourceRowsOf } from '../sources/queries';
import type { Asker } from './asker';
import { groupedBy, type Listed } from './grouping';
import { probablyMeant } from './meant';
import {
  annotationsStatement,
  column,
  countStatement,
  hits,
  run,
  sourcesStatement,
  streams,
  type HitRow,
  type Page,
} from './queries';

/** What was typed, as a query. Throws `query` with the place of the fault. */
export function readQuery(typed: string): Query | undefined {
  const parsed = parseQuery(typed);
  if (!parsed.ok) throw new AppError('query', { message: parsed.error.message }, { field: 'q', current: parsed.error });
  return meaningful(parsed.query);
}

export interface Found {
  readonly ids: readonly string[];
  readonly total: number;
}

/** Which sources a query is met by. */
export function findSources(db: Db, query: Query | undefined, asker: Asker, page: Page<SourceSort>): Found {
  const rows = run<{ id: string; total: number }>(db, sourcesStatement(db, query, asker, page));
  return {
    ids: rows.map((r) => r.id),
    total: rows[0]?.total ?? (page.offset > 0 ? countSources(db, query, asker) : 0),
  };
}

export const countSources = (db: Db, query: Query | undefined, asker: Asker): number =>
  run<{ total: number }>(db, countStatement(query, asker))[0]!.total;

/** A page of sources; with `passages`, each with the first passage of its text in which words are found, or how it begins where none are looked for. */
export function sourcePage(
  db: Db,
  query: Query | undefined,
  asker: Asker,
  { passages = false, ...page }: Page<SourceSort> & { readonly passages?: boolean },
): SourcePage {
  const { ids, total } = findSources(db, query, asker, page);
  const sources = sourceRowsOf(db, asker.me, ids);
  if (total === 0)
    return { sources, total, ...meantBy(probablyMeant(db, query, (other) => countSources(db, other, asker) > 0)) };
  const words = asksWords(query).filter((w) => w.scope === undefined || w.scope === 'text');
  if (!passages) return { sources, total };
  const texts = streams(db, ids);
  return {
    sources: sources.map((source) => {
      const text = texts.get(source.id);
      const found =
        text &&
        (words.length ? snippetOf(text.stream, words) : opening(text.stream, JSON.parse(text.outline) as Outline));
      return found ? { ...source, passage: { snippet: found.marked, ...found.place } } : source;
    }),
    total,
  };
}

const meantBy = (meant: string | undefined): { readonly meant?: string } => (meant === undefined ? {} : { meant });

const OPENING = 320;

/** The first words that are no heading and stand in no aside. */
function opening(
  stream: string,
  outline: Outline,
): { readonly marked: Marked; readonly place: { readonly start: number; readonly end: number } } | undefined {
  const first =
    outline.find((b) => b.role !== 'heading' && !b.aside && b.end - b.start > 60) ??
    outline.find((b) => b.role !== 'heading' && b.end > b.start);
  if (!first) return undefined;
  const end = Math.min(stream.length, first.start + OPENING);
  const cut = end < stream.length ? Math.max(stream.lastIndexOf(' ', end), first.start + 1) : end;
  return {
    place: { start: first.start, end: cut },
    marked: markPlaces(`${stream.slice(first.start, cut)}${cut < stream.length ? '…' : ''}`, []),
  };
}

/** Row numbers of the annotations a query is met by, of those that the asker sees. */
export const findAnnotations = (
  db: Db,
  query: Query | undefined,
  asker: Asker,
  sort: AnnotationSort,
): readonly number[] => column(db, annotationsStatement(db, query, asker, sort));

/** A page of annotations that the asker sees; grouped, it goes from group to group. */
export function annotationPage(
  db: Db,
  query: Query | undefined,
  asker: Asker,
  { sort, offset, limit, by }: Page<AnnotationSort> & { readonly by?: AnnotationGrouping | undefined },
): AnnotationPage {
  const all = findAnnotations(db, query, asker, sort);
  const words = asksWords(query);
  if (all.length === 0)
    return {
      annotations: [],
      total: 0,
      listed: 0,
      by: by ?? null,
      groups: [],
      ...meantBy(probablyMeant(db, query, (other) => findAnnotations(db, other, asker, 'newest').length > 0)),
    };
  const { listed, groups } = by ? groupedBy(db, all, by, asker) : { listed: all.map(alone), groups: [] };
  const page = listed.slice(offset, offset + limit);
  const shown = new Set(page.map((p) => p.group));
  return {
    annotations: listedHits(db, asker.me, page, words),
    total: all.length,
    listed: listed.length,
    by: by ?? null,
    groups: groups.filter((g) => shown.has(g.key)),
  };
}

const alone = (seq: number): Listed => ({ seq });

/** Each as it is listed: one may stand in several groups. What is not seen any more is passed over. */
function listedHits(
  db: Db,
  me: PersonId,
  page: readonly Listed[],
  words: ReturnType<typeof asksWords>,
): AnnotationHit[] {
  const rows = hits(db, me, [...new Set(page.map((p) => p.seq))]);
  const bySeq = new Map(rows.map((row) => [row.seq, annotationHit(row, words)]));
  return page.flatMap(({ seq, group }) => {
    const hit = bySeq.get(seq);
    return hit ? [group === undefined ? hit : { ...hit, group }] : [];
  });
}

/** Annotations by their row numbers, which the caller has found to be seen. */
export const annotationHits = (db: Db, me: PersonId, seqs: readonly number[]): AnnotationHit[] =>
  hits(db, me, seqs).map((row) => annotationHit(row, []));

function annotationHit(row: HitRow, words: ReturnType<typeof asksWords>): AnnotationHit {
  const places = (text: string, scope: 'quote' | 'note') =>
    placesOf(
      text,
      words.filter((w) => w.scope === undefined || w.scope === scope),
    );
  const note = plainWords(row.note);
  return {
    id: row.id,
    sourceId: row.sourceId,
    title: row.title,
    site: row.site,
    sourceKind: row.sourceKind as SourceKind,
    language: row.language,
    openAt: row.rootId ?? row.id,
    rootId: row.rootId,
    kind: kindFrom(row),
    author: { id: row.authorId, name: row.author },
    quote: markQuote(row.quote, places(row.quote, 'quote'), row.from ?? 0, readInlines(row.inlines)),
    note: markPlaces(note, places(note, 'note')),
    tags: JSON.parse(row.tags) as string[],
    classIds: JSON.parse(row.classes) as string[],
    ...(row.teachersOnly === 1 ? { teachersOnly: true as const } : {}),
    ...(row.groups === '[]' ? {} : { groupIds: (JSON.parse(row.groups) as InGroup[]).map((one) => one.groupId) }),
    ...(row.held === '[]' ? {} : { held: true as const }),
    createdAt: row.createdAt,
    version: row.version,
  };
}
