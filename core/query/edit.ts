import { parseQuery } from './parse';
import { NAMES, type NameField, type Query, type Term } from './query';
import { writeQuery } from './write';

/** Parts of which all must hold. */
function partsOf(query: Query | undefined): readonly Query[] {
  if (!query) return [];
  return query.type === 'all' ? query.of : [query];
}
const joined = (parts: readonly Query[]): string =>
  parts.length === 0 ? '' : writeQuery(parts.length === 1 ? parts[0]! : { type: 'all', of: parts });
/** As it stands beside other parts: alternatives keep to themselves. */
function beside(typed: string): string {
  const parsed = parseQuery(typed);
  return parsed.ok && parsed.query?.type === 'any' ? `(${typed})` : typed;
}

/** A query of which more is asked: both must hold, alternatives on either side keep to themselves. */
export const narrowed = (typed: string, more: string): string =>
  [typed.trim(), more.trim()].filter(Boolean).map(beside).join(' ');

/** Of these a source has one at a time: naming another takes the first one's place. */
const ONE_OF: readonly (readonly string[])[] = [['to-read', 'reading', 'finished', 'set-aside']];
const nameTerm = (field: NameField, value: string): Term => ({ type: 'name', field, value, start: 0, end: 0 });
const isName = (part: Query, field: NameField, value: string): boolean =>
  part.type === 'name' && part.field === field && part.value.toLowerCase() === value.toLowerCase();

/** Whether a query asks for a value of a field beside all else. */
export const asksFor = (typed: string, field: NameField, value: string): boolean => {
  const parsed = parseQuery(typed);
  return parsed.ok && partsOf(parsed.query).some((part) => isName(part, field, value));
};

/** A query with a value asked for as well, or no more if it was. What cannot be read is left and added to. */
export function toggled(typed: string, field: NameField, value: string): string {
  const parsed = parseQuery(typed);
  const term = nameTerm(field, value);
  if (!parsed.ok) return `${typed.trim()} ${writeQuery(term)}`.trim();
  const parts = partsOf(parsed.query);
  const rival = field === 'is' ? ONE_OF.find((group) => group.includes(value)) : undefined;
  if (parts.some((part) => isName(part, field, value)))
    return joined(parts.filter((part) => !isName(part, field, value)));
  return joined([
    ...parts.filter((part) => !rival || !(part.type === 'name' && part.field === 'is' && rival.includes(part.value))),
    term,
  ]);
}

/** A query as fields to be filled in; `rest` is what no field holds, as it is typed. */
export interface PlainForm {
  readonly words: string;
  readonly without: string;
  readonly title: string;
  readonly note: string;
  readonly quote: string;
  readonly tag: string;
  readonly in: string;
  readonly by: string;
  readonly kind: string;
  readonly type: string;
  readonly is: string;
  readonly has: string;
  /** At most so many minutes of reading. */
  readonly minutes: string;
  /** Kept in the last so many days. */
  readonly days: string;
  readonly rest: string;
}
export const EMPTY_FORM: PlainForm = {
  words: '',
  without: '',
  title: '',
  note: '',
  quote: '',
  tag: '',
  in: '',
  by: '',
  kind: '',
  type: '',
  is: '',
  has: '',
  minutes: '',
  days: '',
  rest: '',
};
const FORM_NAMES = ['tag', 'in', 'by', 'kind', 'type', 'is', 'has'] as const satisfies readonly NameField[];

/** Fields of a query; undefined where it cannot be read. */
export function formOf(typed: string): PlainForm | undefined {
  const parsed = parseQuery(typed);
  if (!parsed.ok) return undefined;
  const form: Record<keyof PlainForm, string> = { ...EMPTY_FORM };
  const rest: Query[] = [];
  for (const part of partsOf(parsed.query)) {
    if (!fill(form, part)) rest.push(part);
  }
  return { ...form, rest: rest.length === 1 ? beside(joined(rest)) : joined(rest) };
}

/** Puts a part of a query into the field that is for it; false where there is none, or it is filled already. */
function fill(form: Record<keyof PlainForm, string>, part: Query): boolean {
  const put = (field: keyof PlainForm, value: string): boolean => {
    if (form[field] !== '') return false;
    form[field] = value;
    return true;
  };
  const add = (field: 'words' | 'without', value: string): boolean => {
    form[field] = `${form[field]} ${value}`.trim();
    return true;
  };
  switch (part.type) {
    case 'words': {
      const { scope, typed } = plainWords(part)!;
      return scope === undefined ? add('words', typed) : scope !== 'text' && put(scope, typed);
    }
    case 'not': {
      const without = plainWords(part.of);
      return without !== undefined && without.scope === undefined && add('without', without.typed);
    }
    case 'name':
      return isFormName(part.field) && put(part.field, part.value);
    case 'number':
      return isAtMost(part, 'minutes') && put('minutes', String(part.most));
    case 'date': {
      const days = lastDays(part);
      return days !== undefined && put('days', String(days));
    }
    default:
      return false;
  }
}

const isAtMost = ({ field, least, open }: Extract<Query, { type: 'number' }>, of: string): boolean =>
  field === of && least === undefined && open === undefined;
/** Kept within so many days; undefined where it says anything else. */
const lastDays = ({ field, operator, days }: Extract<Query, { type: 'date' }>): number | undefined =>
  field === 'saved' && operator === '=' && 'last' in days && days.unit === 'day' ? days.last : undefined;

const isFormName = (field: string): field is (typeof FORM_NAMES)[number] =>
  (FORM_NAMES as readonly string[]).includes(field);

/** Words as they stand in a field of a form. */
function plainWords(
  part: Query,
): { readonly typed: string; readonly scope?: 'title' | 'text' | 'note' | 'quote' } | undefined {
  if (part.type !== 'words') return undefined;
  const { scope, ...bare } = part;
  if (!scope) return { typed: writeQuery(bare) };
  return { typed: part.phrase ? `"${part.words}"` : part.words, scope };
}

/** What is filled in, as a query. */
export function typedFrom(form: PlainForm): string {
  const words = (value: string): string[] => value.match(/"[^"]*"?|\S+/g) ?? [];
  const quoted = (value: string): string => (/[\s()"]/.test(value) ? `"${value.replaceAll('"', '')}"` : value);
  const parts = [
    ...words(form.words),
    ...words(form.without).map((w) => `-${w.replace(/^-+/, '')}`),
    ...(['title', 'note', 'quote'] as const).flatMap((scope) =>
      form[scope].trim() ? [`${scope}:${quoted(form[scope].trim())}`] : [],
    ),
    ...FORM_NAMES.flatMap((field) => (form[field].trim() ? [`${field}:${quoted(form[field].trim())}`] : [])),
    ...(form.minutes.trim() ? [`minutes<=${form.minutes.trim()}`] : []),
    ...(form.days.trim() ? [`saved:last ${form.days.trim()} days`] : []),
    beside(form.rest.trim()),
  ];
  return parts.filter(Boolean).join(' ');
}

/** Values a field of the form offers by themselves. */
export const CHOICES = { is: NAMES.is, has: NAMES.has } as const;

/** What was typed as words and nothing else, whatever signs stand in it. */
export const asWords = (typed: string): string =>
  (typed.match(/[\p{L}\p{N}\p{M}\p{Co}]+/gu) ?? [])
    .map((words) => writeQuery({ type: 'words', words, phrase: false, start: 0, end: 0 }))
    .join(' ');
