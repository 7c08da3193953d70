import type { AnnotationHit, FindResult, PassageHit, Snippet } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { kindFrom } from '../key/queries';
import { annotations, byTag, CLOSE, CUT, OPEN, passages, type AnnotationHitRow, type PassageRow } from './queries';

const MOST = 30;

/** Finds words in titles, texts, notes and quotations that a person may see. `#tag` alone finds what bears the tag. */
export function find(db: Db, me: string, query: string): FindResult {
  const tag = /^#([\p{L}\p{M}\p{N}_/-]+)$/u.exec(query.trim())?.[1]?.toLowerCase();
  if (tag) {
    const tagged = byTag(db, { me, tag, limit: MOST + 1 }).map(annotationHit);
    return { query, annotations: tagged.slice(0, MOST), passages: [], moreAnnotations: tagged.length > MOST, morePassages: false };
  }
  const match = ftsQuery(query);
  if (!match) return { query, annotations: [], passages: [], moreAnnotations: false, morePassages: false };
  const values = { me, query: match, limit: MOST + 1 };
  const noted = annotations(db, values), read = passages(db, values);
  return {
    query, annotations: noted.slice(0, MOST).map(annotationHit), passages: read.slice(0, MOST).map(passageHit),
    moreAnnotations: noted.length > MOST, morePassages: read.length > MOST,
  };
}

/** Words as FTS5 strings, all of which must be there, the last one also as a beginning; "quoted words" as a phrase. */
export function ftsQuery(query: string): string | undefined {
  const parts = [...query.matchAll(/"([^"]+)"?|(\S+)/g)].map(([, phrase, word]) => ({ text: (phrase ?? word ?? '').replace(/"/g, '').trim(), phrase: phrase !== undefined }));
  const useful = parts.filter(({ text }) => /[\p{L}\p{N}]/u.test(text));
  if (useful.length === 0) return undefined;
  return useful.map(({ text, phrase }, i) => `"${text}"${i === useful.length - 1 && !phrase ? '*' : ''}`).join(' ');
}

/** A snippet with its marks taken apart; cuts become an ellipsis. */
export function toSnippet(marked: string): Snippet {
  const pieces = marked.replaceAll(CUT, '…').split(new RegExp(`[${OPEN}${CLOSE}]`));
  return pieces.map((text, i) => ({ text: text.replace(/\s+/g, ' '), hit: i % 2 === 1 })).filter((p) => p.text);
}

/** Where the snippet's first hit stands in the text: the snippet is a verbatim piece of it. */
function place({ stream, snippet }: PassageRow): { start: number; end: number } {
  const inner = snippet.replaceAll(CUT, '');
  const at = stream.indexOf(inner.replaceAll(OPEN, '').replaceAll(CLOSE, ''));
  const first = inner.indexOf(OPEN);
  if (at < 0 || first < 0) return { start: 0, end: 0 };
  return { start: at + first, end: at + inner.indexOf(CLOSE) - 1 };
}

const passageHit = (row: PassageRow): PassageHit => ({ sourceId: row.source_id, title: row.title, site: row.site, snippet: toSnippet(row.snippet), ...place(row) });

const annotationHit = (row: AnnotationHitRow): AnnotationHit => ({
  sourceId: row.source_id, title: row.title, site: row.site, annotationId: row.root_id ?? row.id, kind: kindFrom(row), author: row.author,
  quote: toSnippet(row.quote), note: toSnippet(row.note), tags: JSON.parse(row.tags) as string[],
});
