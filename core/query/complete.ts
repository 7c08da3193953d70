import { DATES as DATE_FIELDS, FIELDS, NAMES, NUMBERS as NUMBER_FIELDS, type NameField } from './query';

/** Values that are known for a field, the likeliest first. */
export type KnownValues = Partial<Readonly<Record<NameField, readonly string[]>>>;

export interface Completion {
  /** What is put in its place, in UTF-16 units. */
  readonly from: number;
  readonly to: number;
  readonly options: readonly Option[];
}
export interface Option {
  readonly insert: string;
  /** What it would look for. */
  readonly label: string;
}

const MOST = 8;
const DATE_VALUES = ['today', 'last 7 days', 'last month'];
const DUE_VALUES = ['today', 'next 7 days', 'next month', 'last 7 days'];
const NUMBER_SIGNS = ['<10', '>=5'];
const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
/** A value as it is typed: in quotation marks where it holds what ends a word. */
const typedAs = (value: string): string => (/[\s()]/.test(value) ? `"${value}"` : value);

/** What could be meant by what is being typed at `caret`; undefined where nothing suggests itself. */
export function completionAt(typed: string, caret: number, known: KnownValues): Completion | undefined {
  const before = typed.slice(0, caret);
  const begun = /(?:^|[\s(-])(?:([a-z]+)([:<>]=?)("[^"]*|[^\s()"]*)|(#?)([\p{L}\p{M}\p{N}_/]*))$/u.exec(before);
  if (!begun) return undefined;
  const [, field, sign, value, hash, word] = begun;
  if (field !== undefined && value !== undefined)
    return offer({ typed, caret, field, head: `${field}${sign}`, value }, known);
  if (hash)
    return of(
      caret - word!.length - 1,
      caret,
      matching(known.tag ?? [], word!).map((tag) => ({ insert: `tag:${tag} `, label: `#${tag}` })),
    );
  if (!word) return undefined;
  return of(
    caret - word.length,
    caret,
    FIELDS.filter((name) => name.startsWith(word.toLowerCase()) && name !== word).map((name) => ({
      insert: `${name}:`,
      label: `${name}:`,
    })),
  );
}

/** What was typed up to the caret: a field, all before its value, and what of that there is. */
interface Begun {
  readonly typed: string;
  readonly caret: number;
  readonly field: string;
  readonly head: string;
  readonly value: string;
}

function offer({ typed, caret, field, head, value }: Begun, known: KnownValues): Completion | undefined {
  if (!FIELDS.includes(field)) return undefined;
  const from = caret - value.length;
  const given = value.replace(/^"/, '');
  const to = value.startsWith('"') && typed[caret] === '"' ? caret + 1 : caret;
  if (DATES.has(field))
    return of(
      from,
      to,
      matching(field === 'due' ? DUE_VALUES : DATE_VALUES, given).map((day) => ({
        insert: `${day} `,
        label: `${head}${day}`,
      })),
    );
  if (NUMBERS.has(field))
    return given === '' && head.endsWith(':')
      ? of(
          from - 1,
          to,
          NUMBER_SIGNS.map((n) => ({ insert: `${n} `, label: `${field}${n}` })),
        )
      : undefined;
  if (!(field in NAMES)) return undefined;
  const values = NAMES[field as NameField] ?? known[field as NameField] ?? [];
  return of(
    from,
    to,
    matching(values, given)
      .filter((name) => name !== given)
      .map((name) => ({ insert: `${typedAs(name)} `, label: `${head}${typedAs(name)}` })),
  );
}

const DATES: ReadonlySet<string> = new Set(DATE_FIELDS);
const NUMBERS: ReadonlySet<string> = new Set(NUMBER_FIELDS);

/** Those that begin so, before those that hold it. */
function matching(values: readonly string[], begun: string): string[] {
  const wanted = plain(begun);
  const starts = values.filter((v) => plain(v).startsWith(wanted));
  return [...starts, ...(wanted ? values.filter((v) => !starts.includes(v) && plain(v).includes(wanted)) : [])];
}

const of = (from: number, to: number, options: readonly Option[]): Completion | undefined =>
  options.length ? { from, to, options: options.slice(0, MOST) } : undefined;
