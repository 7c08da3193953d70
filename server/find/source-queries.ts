import type { NameField, Query, Term } from '@avrelle/core/query';
import { REACH, sees, seesByReach } from '../access/visible-queries';
import type { Asker } from './asker';
import { condition, dayOf, isNamed, named, ofSource, onDays, tagged, UNPLACED } from './common-queries';
import type { Values } from './values';
import { forAsker, wordsQuery } from './words';

/** A query as a condition on a source `s`; needs SOURCE_JOINS and `@me`. */
export const sourceCondition = (query: Query | undefined, asker: Asker, values: Values): string =>
  condition(query, (term) => ofSource(term, asker, values) ?? own(term, asker, values));

function own(term: Term, asker: Asker, values: Values): string {
  switch (term.type) {
    case 'words':
      return words(term, asker, values);
    case 'date':
      return onDays(dayOf('s.kept_at', asker, values), term, asker.today, values);
    case 'name':
      return byName(term.field, term.value, values);
    case 'number':
      throw new Error(`No condition for ${term.field}.`);
  }
}

/** What is tagged, and seen, by the asker alone: their tags of the source and of their marks in it. */
const bears = (value: string, values: Values): string => {
  const mine = `g.person_id = @me AND ${tagged('g.tag', value, values)}`;
  return `(s.id IN (SELECT g.source_id FROM source_tag g WHERE ${mine})
    OR s.id IN (SELECT x.source_id FROM annotation_tag g JOIN annotation x ON x.id = g.annotation_id WHERE ${tagged('g.tag', value, values)} AND x.author_id = @me AND x.deleted_at IS NULL))`;
};
const someMark = (rest: string): string =>
  `EXISTS (SELECT 1 FROM annotation x WHERE x.source_id = s.id AND ${rest} AND ${sees('x')})`;

function byName(field: NameField, value: string, values: Values): string {
  switch (field) {
    case 'tag':
      return bears(value, values);
    case 'by':
      return named('s.author', value, values);
    case 'kind':
      return `EXISTS (SELECT 1 FROM annotation x LEFT JOIN kind k ON k.owner_id = x.kind_owner AND k.code = x.kind WHERE x.source_id = s.id AND x.root_id IS NULL AND (x.kind = ${values.hold(value.toLowerCase())} OR ${isNamed('k.name', value, values)}) AND ${sees('x')})`;
    case 'is':
      switch (value) {
        case 'mine':
          return 's.owner_id = @me';
        case 'shared':
          return 'EXISTS (SELECT 1 FROM class_source cs JOIN membership m ON m.class_id = cs.class_id AND m.person_id = @me WHERE cs.source_id = s.id)';
        default:
          return someMark(`x.root_id IS NULL AND ${UNPLACED}`);
      }
    case 'has':
      switch (value) {
        case 'note':
          return someMark("x.note <> ''");
        case 'tag':
          return '(EXISTS (SELECT 1 FROM source_tag g WHERE g.person_id = @me AND g.source_id = s.id) OR EXISTS (SELECT 1 FROM annotation x JOIN annotation_tag g ON g.annotation_id = x.id WHERE x.source_id = s.id AND x.author_id = @me AND x.deleted_at IS NULL))';
        case 'answer':
          return someMark('x.root_id IS NOT NULL');
        case 'drawing':
          return someMark("json_extract(x.anchor, '$.spot.type') = 'drawn'");
        default:
          return someMark('x.root_id IS NULL');
      }
    default:
      throw new Error(`No condition for ${field}.`);
  }
}

function words(
  { words: looked, phrase, scope }: Extract<Term, { type: 'words' }>,
  asker: Asker,
  values: Values,
): string {
  const query = wordsQuery(looked, phrase);
  const inSource = (columns: string): string =>
    `t.seq IN (SELECT rowid FROM source_words WHERE source_words MATCH ${values.hold(`{${columns}} : ${query}`)})`;
  const inMarks = (columns: string): string =>
    `s.id IN (SELECT x.source_id FROM annotation_words w CROSS JOIN annotation x ON x.seq = w.rowid WHERE w.annotation_words MATCH ${values.hold(forAsker(asker, `{${columns}} : ${query}`))} AND ${seesByReach('x', values.table(REACH))})`;
  switch (scope) {
    case 'title':
      return inSource('title');
    case 'text':
      return inSource('stream');
    case 'note':
      return inMarks('note');
    case 'quote':
      return inMarks('quote');
    case undefined:
      return `(${inSource('title about stream')} OR (s.owner_id = @me AND ${inSource('remark')}) OR ${inMarks('quote note')})`;
  }
}
