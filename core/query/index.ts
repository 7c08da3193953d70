export {
  DATES,
  FIELDS,
  NAMES,
  NUMBERS,
  SCOPES,
  type Days,
  type DateField,
  type NameField,
  type NumberField,
  type Operator,
  type Parsed,
  type Query,
  type QueryError,
  type Scope,
  type Term,
} from './query';
export { markPlaces, placesOf, snippetOf, type Marked } from './mark-words';
export { markQuote } from './mark-quote';
export { completionAt, type Completion, type KnownValues, type Option } from './complete';
export { asksFor, asWords, CHOICES, EMPTY_FORM, formOf, narrowed, toggled, typedFrom, type PlainForm } from './edit';
export { parseQuery } from './parse';
export { renameTagIn } from './rename-tag';
export { writeQuery } from './write';
export { boundsOf, readDays, writeDays } from './days';
export { asksWords, meaningful } from './meaningful';
