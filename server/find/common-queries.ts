import type { Db } from '../db/database';
import { boundsOf, type DateField, type Query, type Term } from '@avrelle/core/query';
import { READ } from '@avrelle/core/reading';
import { KIND_WORDS, READING_STATES, SOURCE_KINDS, STATE_NAMES } from '@avrelle/core/wire';
import { isSetFor, sees } from '../access/visible-queries';
import { folded } from '../db/spaced';
import type { Asker } from './asker';
import { within, type Values } from './values';

/** One part of a query as SQL. */
export type Compile = (term: Term) => string;

/** A query as one condition: its parts are compiled by `term`. */
export function condition(query: Query | undefined, term: Compile): string {
  if (!query) return '1';
  switch (query.type) {
    case 'all':
      return `(${query.of.map((part) => condition(part, term)).join(' AND ')})`;
    case 'any':
      return `(${query.of.map((part) => condition(part, term)).join(' OR ')})`;
    case 'not':
      return `(NOT ${condition(query.of, term)})`;
    // What is not known is not so: NOT would leave it unknown.
    default:
      return `coalesce(${term(query)}, 0)`;
  }
}

/** The columns all conditions on sources go by: source `s`, its text `t`, what it is to the asker `h`. Left joins cost nothing where a condition does not ask them. */
export const SOURCE_JOINS =
  'LEFT JOIN version_text t ON t.version_id = s.current_version LEFT JOIN shelf h ON h.person_id = @me AND h.source_id = s.id';
const SEEN_MARKS = `annotation x WHERE x.source_id = s.id AND x.root_id IS NULL AND ${sees('x')}`;
/** Lost in the newest version, and nobody has said where it belongs. */
export const UNPLACED =
  'EXISTS (SELECT 1 FROM placement l WHERE l.annotation_id = x.id AND l.version_id = s.current_version AND l.start IS NULL AND l.hand_start IS NULL)';

/** A tag, or one beneath it: from `tag/` up to what follows the slash. */
export const tagged = (column: string, value: string, values: Values): string =>
  `(${column} = ${values.hold(value)} OR (${column} >= ${values.hold(`${value}/`)} AND ${column} < ${values.hold(`${value}0`)}))`;
export const named = (column: string, value: string, values: Values): string =>
  `folded(${column}) LIKE ${values.hold(within(folded(value)))} ESCAPE '\\'`;
export const isNamed = (column: string, value: string, values: Values): string =>
  `folded(${column}) = ${values.hold(folded(value))}`;

/** In a collection the asker sees, or in one that stands in it and that they see as well. */
export const isCollected = (value: string, values: Values): string => `s.id IN (
  SELECT i.source_id FROM collection_visible w JOIN collection n ON n.id = w.collection_id
    LEFT JOIN collection u ON u.parent_id = n.id AND u.id IN (SELECT collection_id FROM collection_visible WHERE person_id = @me)
    JOIN collection_item i ON i.collection_id IN (n.id, u.id)
  WHERE w.person_id = @me AND ${isNamed('n.name', value, values)})`;

/** What a source is in: a class it is shared with, or a collection. */
const isIn = (value: string, values: Values): string =>
  `(s.id IN (SELECT cs.source_id FROM membership m JOIN class c ON c.id = m.class_id JOIN class_source cs ON cs.class_id = c.id WHERE m.person_id = @me AND ${isNamed('c.name', value, values)}) OR ${isCollected(value, values)})`;

const PUBLISHED = "substr(s.published_at || substr('0000-01-01', length(s.published_at) + 1), 1, 10)";

/** Set for a class of the asker's, and due for them then; who has more time goes by theirs. */
function isDue(term: DateTerm, asker: Asker, values: Values): string {
  const day = dayOf('coalesce(e.due_at, g.due_at)', asker, values);
  return `s.id IN (
    SELECT g.source_id FROM class_reach w
    JOIN assignment g ON g.class_id = w.class_id AND g.source_id = w.source_id
    JOIN class c ON c.id = g.class_id AND c.archived_at IS NULL
    LEFT JOIN extension e ON e.class_id = g.class_id AND e.source_id = g.source_id AND e.person_id = w.person_id
      AND e.due_at > g.due_at
    WHERE w.person_id = @me AND ${isSetFor('w', 'g')} AND ${onDays(day, term, asker.today, values)})`;
}

/** What is said of a source, whether sources or annotations are listed; undefined for what differs between them. */
export function ofSource(term: Term, asker: Asker, values: Values): string | undefined {
  switch (term.type) {
    case 'words':
      return undefined;
    case 'number':
      return `(${compared(NUMBERS[term.field], term, values)})`;
    case 'date':
      if (term.field === 'due') return isDue(term, asker, values);
      return term.field === 'published' ? onDays(PUBLISHED, term, asker.today, values) : undefined;
    case 'name':
      switch (term.field) {
        case 'in':
          return isIn(term.value, values);
        case 'site':
          return named('s.site', term.value, values);
        case 'lang':
          return `(s.language = ${values.hold(term.value)} COLLATE NOCASE OR s.language LIKE ${values.hold(`${term.value}-%`)})`;
        case 'type':
          return `s.kind IN (SELECT value FROM json_each(${values.hold(JSON.stringify(kindsCalled(term.value)))}))`;
        case 'is': {
          const state = READING_STATES.find((s) => STATE_NAMES[s] === term.value);
          if (state) return `coalesce(h.state, 'to_read') = ${values.hold(state)}`;
          return term.value === 'read'
            ? `(coalesce(h.state, '') = 'finished' OR coalesce(h.read_share, 0) >= ${READ})`
            : undefined;
        }
        case 'has':
          if (term.value === 'file')
            return 'EXISTS (SELECT 1 FROM source_version f WHERE f.id = s.current_version AND f.file_hash IS NOT NULL)';
          return term.value === 'remark' ? "(s.owner_id = @me AND s.remark <> '')" : undefined;
        default:
          return undefined;
      }
  }
}

const NUMBERS = {
  minutes: 's.minutes',
  progress: 'coalesce(h.read_share, 0) * 100',
  marks: `(SELECT count(*) FROM ${SEEN_MARKS})`,
} as const;

function compared(column: string, { least, most, open }: Extract<Term, { type: 'number' }>, values: Values): string {
  const parts = [
    ...(least === undefined ? [] : [`${column} ${open === 'least' ? '>' : '>='} ${values.hold(least)}`]),
    ...(most === undefined ? [] : [`${column} ${open === 'most' ? '<' : '<='} ${values.hold(most)}`]),
  ];
  return parts.join(' AND ');
}

/** Kinds of source by their code or by what they are called. */
export const kindsCalled = (value: string): string[] =>
  SOURCE_KINDS.filter((kind) => kind === value.toLowerCase() || folded(KIND_WORDS[kind]) === folded(value));

type DateTerm = Extract<Term, { type: 'date' }> & { readonly field: DateField };

/** A column of days as `YYYY-MM-DD`. */
export function onDays(column: string, { operator, days }: DateTerm, today: string, values: Values): string {
  const { from, to } = boundsOf(days, today);
  switch (operator) {
    case '=':
      return `(${column} >= ${values.hold(from)} AND ${column} <= ${values.hold(to)})`;
    case '<':
      return `${column} < ${values.hold(from)}`;
    case '<=':
      return `${column} <= ${values.hold(to)}`;
    case '>':
      return `${column} > ${values.hold(to)}`;
    case '>=':
      return `${column} >= ${values.hold(from)}`;
  }
}

/** The day of an instant where the asker is. */
export const dayOf = (column: string, { ahead }: Asker, values: Values): string =>
  ahead === 0 ? `substr(${column}, 1, 10)` : `date(${column}, ${values.hold(`${ahead} minutes`)})`;

const MERGE = [
  "INSERT INTO source_words(source_words) VALUES ('optimize')",
  "INSERT INTO annotation_words(annotation_words) VALUES ('optimize')",
];
/** Writes the word indexes anew: until then they hold the words of what was removed. */
export function mergeWords(db: Db): void {
  for (const sql of MERGE) db.run(sql);
}
