import { editDistance } from '../anchor/edit-distance';
import { readDays } from './days';
import {
  DATES,
  FIELDS,
  NAMES,
  NUMBERS,
  OPERATORS,
  SCOPES,
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
import { tokensIn, type Token } from './tokens';

type Field = Extract<Token, { type: 'field' }>;

class Wrong extends Error {
  constructor(readonly error: QueryError) {
    super(error.message);
  }
}

/** Reads a query. Never throws: what is none comes back with the place of the fault and, where one suggests itself, a mend. */
export function parseQuery(typed: string): Parsed {
  try {
    const tokens = tokensIn(typed);
    const over = tokens[MOST_PARTS];
    if (over)
      throw new Wrong({
        start: over.start,
        end: typed.length,
        message: `A search may have ${MOST_PARTS} parts. Leave some out.`,
        mend: typed.slice(0, over.start).trim(),
      });
    const reader = new Reader(typed, tokens);
    return { ok: true, query: reader.all() };
  } catch (error) {
    if (error instanceof Wrong) return { ok: false, error: error.error };
    throw error;
  }
}

/** A tag as it is written in notes. */
const HASHED = /^#([\p{L}\p{M}\p{N}_/-]+)$/u;
/** A question of more parts than this is none of anybody's. */
const MOST_PARTS = 200;
/** Parentheses deeper than this are no question of anybody's. */
const DEEPEST = 50;

class Reader {
  private at = 0;
  private depth = 0;
  constructor(
    private readonly typed: string,
    private readonly tokens: readonly Token[],
  ) {}

  all(): Query | undefined {
    if (this.tokens.length === 0) return undefined;
    const query = this.any();
    const left = this.tokens[this.at];
    if (left) throw this.wrong(left, 'This parenthesis closes nothing.', this.without(left));
    return query;
  }

  private any(): Query {
    const of = [this.every()];
    while (this.tokens[this.at]?.type === 'or') {
      this.at++;
      of.push(this.every());
    }
    return of.length === 1 ? of[0]! : { type: 'any', of };
  }

  private every(): Query {
    const of = [this.one()];
    for (
      let next = this.tokens[this.at];
      next && next.type !== 'or' && next.type !== 'close';
      next = this.tokens[this.at]
    ) {
      if (next.type === 'and') this.at++;
      of.push(this.one());
    }
    return of.length === 1 ? of[0]! : { type: 'all', of };
  }

  private one(): Query {
    const token = this.tokens[this.at];
    if (!token || token.type === 'close' || token.type === 'or' || token.type === 'and') throw this.nothing(token);
    this.at++;
    switch (token.type) {
      case 'not':
        return { type: 'not', of: this.within(token, () => this.one()) };
      case 'open':
        return this.group(token);
      case 'words':
        return this.words(token);
      case 'field':
        return readField(this.typed, token);
    }
  }

  private group(open: Token): Query {
    if (!this.tokens[this.at])
      throw this.wrong(open, 'This parenthesis is not closed, and nothing stands in it.', this.without(open));
    const query = this.within(open, () => this.any());
    const close = this.tokens[this.at];
    if (close?.type !== 'close') throw this.wrong(open, 'This parenthesis is not closed.', `${this.typed})`);
    this.at++;
    return query;
  }

  /** One level deeper than here. */
  private within(token: Token, read: () => Query): Query {
    if (this.depth === DEEPEST) throw this.wrong(token, `Parentheses and minus signs can be nested ${DEEPEST} deep.`);
    this.depth++;
    const query = read();
    this.depth--;
    return query;
  }

  private words({ text, phrase, closed, start, end }: Extract<Token, { type: 'words' }>): Term {
    if (!closed) throw this.wrong({ start, end }, 'This quotation mark is not closed.', `${this.typed}"`);
    const tag = phrase ? undefined : HASHED.exec(text)?.[1]?.toLowerCase();
    return tag === undefined
      ? { type: 'words', words: text, phrase, start, end }
      : { type: 'name', field: 'tag', value: tag, start, end };
  }

  private nothing(found: Token | undefined): Wrong {
    const before = this.tokens[this.at - 1];
    const name = before ? this.typed.slice(before.start, before.end) : '';
    if (found && !before)
      return this.wrong(
        found,
        `${found.type === 'close' ? 'This parenthesis closes nothing.' : `Something must stand before ${found.type.toUpperCase()}.`}`,
        this.without(found),
      );
    return this.wrong(before!, `Something must stand after ${name}.`, this.without(before!));
  }

  private without({ start, end }: { start: number; end: number }): string {
    return `${this.typed.slice(0, start)}${this.typed.slice(end)}`.replace(/\s+/g, ' ').trim();
  }

  private wrong({ start, end }: { start: number; end: number }, message: string, mend?: string): Wrong {
    return new Wrong({ start, end, message, ...(mend === undefined ? {} : { mend }) });
  }
}

const isOf = <T extends string>(of: readonly T[], word: string): word is T => (of as readonly string[]).includes(word);

function readField(typed: string, token: Field): Term {
  const { start, end, valueStart, value } = token;
  const field = token.name.toLowerCase();
  const wrong = (message: string, from: number, to: number, by?: string): Wrong =>
    new Wrong({
      message,
      start: from,
      end: to,
      ...(by === undefined ? {} : { mend: typed.slice(0, from) + by + typed.slice(to) }),
    });
  if (!FIELDS.includes(field)) {
    const near = nearest(field, FIELDS);
    throw wrong(
      `There is no field “${token.name}”${near ? `; did you mean “${near}”?` : `. There are: ${FIELDS.join(', ')}.`} In quotation marks it is looked for as it stands.`,
      start,
      start + token.name.length,
      near,
    );
  }
  if (!token.closed)
    throw wrong('This quotation mark is not closed.', valueStart, end, `${typed.slice(valueStart, end)}"`);
  if (value.trim() === '')
    throw wrong(`Say what “${field}” shall be, as in ${EXAMPLES[field]}.`, start, end, EXAMPLES[field]);
  const compared = isOf(NUMBERS, field) || isOf(DATES, field);
  if (!compared && token.sign !== ':' && token.sign !== '=')
    throw wrong(`“${field}” cannot be compared, only named: ${field}:${value}.`, start + field.length, valueStart, ':');
  if (isOf(SCOPES, field))
    return { type: 'words', words: value, phrase: token.quoted, scope: field satisfies Scope, start, end };
  if (isOf(NUMBERS, field)) return readNumber(token, field, wrong);
  if (isOf(DATES, field)) return readDate(token, field, wrong);
  return readName(token, field as NameField, wrong);
}

type Fault = (message: string, from: number, to: number, by?: string) => Wrong;

function readName({ value, valueStart, start, end }: Field, field: NameField, wrong: Fault): Term {
  const allowed: readonly string[] | undefined = NAMES[field];
  const word = field === 'tag' ? value.replace(/^#/, '').toLowerCase() : value;
  if (allowed && !allowed.includes(word.toLowerCase())) {
    const near = nearest(word.toLowerCase(), allowed);
    throw wrong(`“${field}” is one of: ${allowed.join(', ')}.`, valueStart, end, near);
  }
  if (word === '') throw wrong(`Say what “${field}” shall be, as in ${EXAMPLES[field]}.`, start, end, EXAMPLES[field]);
  return { type: 'name', field, value: allowed ? word.toLowerCase() : word, start, end };
}

const NUMBER = /^\d{1,9}(?:\.\d{1,3})?$/;
const FROM_TO = /^(\d{1,9}(?:\.\d{1,3})?)\.\.(\d{1,9}(?:\.\d{1,3})?)$/;

function readNumber({ sign, value, valueStart, start, end }: Field, field: NumberField, wrong: Fault): Term {
  const both = FROM_TO.exec(value);
  const common = { type: 'number' as const, field, start, end };
  if (both && (sign === ':' || sign === '=')) {
    const [least, most] = [Number(both[1]), Number(both[2])];
    if (least > most) throw wrong('The smaller number stands first.', valueStart, end, `${most}..${least}`);
    return { ...common, least, most };
  }
  if (!NUMBER.test(value)) throw wrong(`“${field}” is a number, as in ${EXAMPLES[field]}.`, valueStart, end);
  const n = Number(value);
  switch (sign) {
    case '<':
      return { ...common, most: n, open: 'most' };
    case '<=':
      return { ...common, most: n };
    case '>':
      return { ...common, least: n, open: 'least' };
    case '>=':
      return { ...common, least: n };
    default:
      return { ...common, least: n, most: n };
  }
}

function readDate({ sign, value, valueStart, start, end }: Field, field: DateField, wrong: Fault): Term {
  const days = readDays(value);
  const operator: Operator = isOf(OPERATORS, sign) ? sign : '=';
  if (!days)
    throw wrong(
      `“${value}” is no date. Write a day, a month or a year (2026-09-01, 2026-09, 2026), ` +
        'two with .. between them, today, last 7 days, or next 7 days.',
      valueStart,
      end,
    );
  if (operator !== '=' && !('from' in days))
    throw wrong('Days counted from today cannot be compared.', start + field.length, valueStart, ':');
  return { type: 'date', field, operator, days, start, end };
}

const EXAMPLES: Readonly<Record<string, string>> = {
  tag: 'tag:essay',
  in: 'in:"Field course"',
  by: 'by:Ines',
  kind: 'kind:claim',
  site: 'site:review.saltmere.test',
  lang: 'lang:en',
  type: 'type:pdf',
  is: 'is:reading',
  has: 'has:note',
  minutes: 'minutes<10',
  progress: 'progress:1..99',
  marks: 'marks>5',
  saved: 'saved:last 7 days',
  published: 'published:2026',
  due: 'due:next 7 days',
  title: 'title:marsh',
  text: 'text:marsh',
  note: 'note:essay',
  quote: 'quote:mud',
};

const units = (word: string): number[] => Array.from(word, (c) => c.codePointAt(0)!);

/** A word that was probably meant: at most a third of it is otherwise. */
function nearest(word: string, of: readonly string[]): string | undefined {
  const [best] = of.map((one) => [one, editDistance(units(word), units(one))] as const).sort((a, b) => a[1] - b[1]);
  return best && best[1] <= Math.max(1, Math.floor(best[0].length / 3)) ? best[0] : undefined;
}
