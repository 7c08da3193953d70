export { DATES, FIELDS, NAMES, NUMBERS, SCOPES, type Days, type DateField, type NameField, type NumberField, type Operator, type Parsed, type Query, type QueryError, type Scope, type Term } from './query';
export { parseQuery } from './parse';
export { writeQuery } from './write';
export { readDays, writeDays } from './days';
