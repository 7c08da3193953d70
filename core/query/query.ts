/** Where words are looked for; without one, everywhere. */
export const SCOPES = ['title', 'text', 'note', 'quote'] as const;
export type Scope = (typeof SCOPES)[number];

export const OPERATORS = ['<', '<=', '=', '>=', '>'] as const;
export type Operator = (typeof OPERATORS)[number];

/** Fields whose value is a name: as somebody gave it, or one of a few words. */
export const NAMES = {
  tag: undefined,
  in: undefined,
  by: undefined,
  kind: undefined,
  site: undefined,
  lang: undefined,
  type: undefined,
  is: ['to-read', 'reading', 'finished', 'set-aside', 'mine', 'shared', 'unplaced', 'read'],
  has: ['note', 'tag', 'mark', 'answer', 'drawing', 'file', 'remark'],
} as const satisfies Readonly<Record<string, readonly string[] | undefined>>;
export type NameField = keyof typeof NAMES;

/** Fields that are counted: minutes of reading, percent read, number of marks. */
export const NUMBERS = ['minutes', 'progress', 'marks'] as const;
export type NumberField = (typeof NUMBERS)[number];
export const DATES = ['saved', 'published', 'due'] as const;
export type DateField = (typeof DATES)[number];

export const FIELDS: readonly string[] = [...Object.keys(NAMES), ...NUMBERS, ...DATES, ...SCOPES];

/** Days, both among them: as written (a day, a month, a year), or counted from today, back or ahead. */
export type Days =
  | { readonly from: string; readonly to: string }
  | { readonly last: number; readonly unit: DayUnit }
  | { readonly next: number; readonly unit: DayUnit };
export type DayUnit = 'day' | 'week' | 'month';

/** What is looked for. `start` and `end` say where it stands in what was typed, in UTF-16 units. */
export type Query =
  Term | { readonly type: 'all' | 'any'; readonly of: readonly Query[] } | { readonly type: 'not'; readonly of: Query };

export type Term = Spanned &
  (
    | { readonly type: 'words'; readonly words: string; readonly phrase: boolean; readonly scope?: Scope }
    | { readonly type: 'name'; readonly field: NameField; readonly value: string }
    | {
        readonly type: 'number';
        readonly field: NumberField;
        readonly least?: number;
        readonly most?: number;
        readonly open?: 'least' | 'most';
      }
    | { readonly type: 'date'; readonly field: DateField; readonly operator: Operator; readonly days: Days }
  );

export interface Spanned {
  readonly start: number;
  readonly end: number;
}

/** What was typed is no query: where, why, and how it would be one. */
export interface QueryError extends Spanned {
  readonly message: string;
  /** The whole of what was typed, mended; absent where no mending suggests itself. */
  readonly mend?: string;
}

/** Nothing typed is no query and no error. */
export type Parsed =
  { readonly ok: true; readonly query: Query | undefined } | { readonly ok: false; readonly error: QueryError };
