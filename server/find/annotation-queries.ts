import type { NameField, Query, Term } from '@avrelle/core/query';
import { isShownTo, sees } from '../access/visible-queries';
import type { Asker } from './asker';
import { condition, dayOf, isCollected, isNamed, named, ofSource, onDays, tagged, UNPLACED } from './common-queries';
import type { Values } from './values';
import { wordsQuery } from './words';

/** A query as a condition on an annotation `x` by person `p` of a source `s`; needs SOURCE_JOINS and `@me`. */
export const annotationCondition = (query: Query | undefined, asker: Asker, values: Values): string =>
  condition(query, (term) => own(term, asker, values) ?? ofSource(term, asker, values) ?? '0');

/** What words an annotation must hold for a query to be met, as an FTS5 query; undefined where it may hold none. */
export function necessaryWords(query: Query | undefined): string | undefined {
  if (!query) return undefined;
  switch (query.type) {
    case 'all': {
      const parts = query.of.flatMap((part) => necessaryWords(part) ?? []);
      return parts.length > 1 ? `(${parts.join(' AND ')})` : parts[0];
    }
    case 'any': {
      const parts = query.of.map(necessaryWords);
      return parts.every((part) => part !== undefined) ? `(${parts.join(' OR ')})` : undefined;
    }
    case 'words':
      return query.scope === undefined || query.scope === 'note' || query.scope === 'quote'
        ? `({${query.scope ?? 'quote note'}} : ${wordsQuery(query.words, query.phrase)})`
        : undefined;
    default:
      return undefined;
  }
}

/** What necessaryWords leaves to be asked; undefined where it says all. */
export function besideWords(query: Query | undefined): Query | undefined {
  if (!query) return undefined;
  if (query.type === 'all') {
    const of = query.of.flatMap((part) => besideWords(part) ?? []);
    return of.length > 1 ? { type: 'all', of } : of[0];
  }
  return saysAll(query) ? undefined : query;
}

const saysAll = (query: Query): boolean =>
  query.type === 'any' || query.type === 'all'
    ? query.of.every(saysAll)
    : query.type === 'words' && necessaryWords(query) !== undefined;

function own(term: Term, asker: Asker, values: Values): string | undefined {
  switch (term.type) {
    case 'words':
      return words(term, values);
    case 'date':
      return term.field === 'saved'
        ? onDays(dayOf('x.created_at', asker, values), term, asker.today, values)
        : undefined;
    case 'name':
      return byName(term.field, term.value, values);
    case 'number':
      return undefined;
  }
}

/** Of a class of the asker's, whether they may know that something is for it. */
const IS_FOR_ME = `(${isShownTo('m', 'ac')} OR EXISTS (
  SELECT 1 FROM annotation o WHERE o.id = ac.annotation_id AND o.author_id = @me))`;

function byName(field: NameField, value: string, values: Values): string | undefined {
  switch (field) {
    case 'tag':
      return `x.id IN (SELECT g.annotation_id FROM annotation_tag g WHERE ${tagged('g.tag', value, values)})`;
    case 'by':
      return named('p.name', value, values);
    case 'in':
      return `(x.id IN (
        SELECT ac.annotation_id FROM membership m
        JOIN class c ON c.id = m.class_id
        JOIN annotation_class ac ON ac.class_id = c.id
        WHERE m.person_id = @me AND ${isNamed('c.name', value, values)} AND ${IS_FOR_ME})
      OR ${isCollected(value, values)})`;
    case 'kind':
      return `EXISTS (SELECT 1 FROM annotation r LEFT JOIN kind k ON k.owner_id = r.kind_owner AND k.code = r.kind WHERE r.id = coalesce(x.root_id, x.id) AND (r.kind = ${values.hold(value.toLowerCase())} OR ${isNamed('k.name', value, values)}))`;
    case 'is':
      switch (value) {
        case 'mine':
          return 'x.author_id = @me';
        case 'shared':
          return `EXISTS (
            SELECT 1 FROM annotation_class ac
            JOIN membership m ON m.class_id = ac.class_id AND m.person_id = @me
            WHERE ac.annotation_id = x.id AND ${IS_FOR_ME})`;
        case 'unplaced':
          return UNPLACED;
        default:
          return undefined;
      }
    case 'has':
      switch (value) {
        case 'note':
          return "x.note <> ''";
        case 'tag':
          return 'EXISTS (SELECT 1 FROM annotation_tag g WHERE g.annotation_id = x.id)';
        case 'mark':
          return 'x.root_id IS NULL';
        case 'answer':
          return `EXISTS (SELECT 1 FROM annotation r WHERE r.root_id = x.id AND ${sees('r')})`;
        case 'drawing':
          return "json_extract(x.anchor, '$.spot.type') = 'drawn'";
        default:
          return undefined;
      }
    default:
      return undefined;
  }
}

function words({ words: looked, phrase, scope }: Extract<Term, { type: 'words' }>, values: Values): string {
  const query = wordsQuery(looked, phrase);
  if (scope === 'title' || scope === 'text')
    return `t.seq IN (SELECT rowid FROM source_words WHERE source_words MATCH ${values.hold(`{${scope === 'title' ? 'title' : 'stream'}} : ${query}`)})`;
  return `x.seq IN (SELECT rowid FROM annotation_words WHERE annotation_words MATCH ${values.hold(`{${scope ?? 'quote note'}} : ${query}`)})`;
}
