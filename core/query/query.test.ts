import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { parseQuery, readDays, writeDays, writeQuery, NAMES, NUMBERS, SCOPES, type NameField, type Query } from '.';

/** A query without the places of its parts. */
const bare = (query: Query | undefined): unknown =>
  JSON.parse(
    JSON.stringify(query ?? null, (key, value: unknown) => (key === 'start' || key === 'end' ? undefined : value)),
  );
const read = (typed: string): unknown => {
  const parsed = parseQuery(typed);
  if (!parsed.ok) throw new Error(parsed.error.message);
  return bare(parsed.query);
};
const words = (text: string, more: object = {}): object => ({ type: 'words', words: text, phrase: false, ...more });
const name = (field: NameField, value: string): object => ({ type: 'name', field, value });

describe('what is typed is read as', () => {
  test.each<[string, unknown]>([
    ['', null],
    ['  ', null],
    ['marsh', words('marsh')],
    ['salt marsh', { type: 'all', of: [words('salt'), words('marsh')] }],
    ['"salt marsh"', words('salt marsh', { phrase: true })],
    ['mud OR peat', { type: 'any', of: [words('mud'), words('peat')] }],
    ['a b OR c', { type: 'any', of: [{ type: 'all', of: [words('a'), words('b')] }, words('c')] }],
    ['-eels', { type: 'not', of: words('eels') }],
    ['NOT eels', { type: 'not', of: words('eels') }],
    ['a AND b', { type: 'all', of: [words('a'), words('b')] }],
    ['(a OR b) c', { type: 'all', of: [{ type: 'any', of: [words('a'), words('b')] }, words('c')] }],
    ['or and not', { type: 'all', of: [words('or'), words('and'), words('not')] }],
    ['well-kept', words('well-kept')],
    ['http://x.test/a', words('http://x.test/a')],
    ['10:30', words('10:30')],
    ['—', words('—')],
    ['tag:#Essay', name('tag', 'essay')],
    ['TAG:essay/opening', name('tag', 'essay/opening')],
    ['in:"Field course B"', name('in', 'Field course B')],
    ['is:Reading', name('is', 'reading')],
    ['quote:mud', words('mud', { scope: 'quote' })],
    ['note:"why so"', words('why so', { scope: 'note', phrase: true })],
    ['minutes<10', { type: 'number', field: 'minutes', most: 10, open: 'most' }],
    ['marks>=5', { type: 'number', field: 'marks', least: 5 }],
    ['progress:1..99', { type: 'number', field: 'progress', least: 1, most: 99 }],
    ['minutes:4.5', { type: 'number', field: 'minutes', least: 4.5, most: 4.5 }],
    [
      'saved>=2026-09-01',
      { type: 'date', field: 'saved', operator: '>=', days: { from: '2026-09-01', to: '2026-09-01' } },
    ],
    [
      'saved:last 7 days mud',
      {
        type: 'all',
        of: [{ type: 'date', field: 'saved', operator: '=', days: { last: 7, unit: 'day' } }, words('mud')],
      },
    ],
    [
      'published:2024..2025-02',
      { type: 'date', field: 'published', operator: '=', days: { from: '2024-01-01', to: '2025-02-28' } },
    ],
    ['due:next 7 days', { type: 'date', field: 'due', operator: '=', days: { next: 7, unit: 'day' } }],
    ['(saved:today)', { type: 'date', field: 'saved', operator: '=', days: { last: 1, unit: 'day' } }],
  ])('%s', (typed, expected) => expect(read(typed)).toEqual(expected));

  test('its parts, each at its place', () => {
    const typed = 'mud (tag:essay OR "not so")';
    const found: string[] = [];
    JSON.stringify(parseQuery(typed), (_, value: unknown) => {
      const { start, end } = (value ?? {}) as { start?: number; end?: number };
      if (start !== undefined) found.push(typed.slice(start, end));
      return value;
    });
    expect(found).toEqual(['mud', 'tag:essay', '"not so"']);
  });
});

describe('what is no query says where and why, and how it would be one', () => {
  test.each<[string, string, RegExp, string | undefined]>([
    ['tg:essay', 'tg', /no field “tg”; did you mean “tag”/, 'tag:essay'],
    ['mud author:ines', 'author', /There are: tag, in, by/, undefined],
    ['"salt marsh', '"salt marsh', /not closed/, '"salt marsh"'],
    ['in:"Field', '"Field', /not closed/, 'in:"Field"'],
    ['(a OR b', '(', /not closed/, '(a OR b)'],
    ['a) b', ')', /closes nothing/, 'a b'],
    ['()', '(', /stand after/, ')'],
    ['mud OR', 'OR', /after OR/, 'mud'],
    ['OR mud', 'OR', /before OR/, 'mud'],
    ['a AND OR b', 'AND', /after AND/, 'a OR b'],
    ['tag:', 'tag:', /as in tag:essay/, 'tag:essay'],
    ['is:redaing', 'redaing', /one of: to-read, reading/, 'is:reading'],
    ['tag<essay', '<', /cannot be compared/, 'tag:essay'],
    ['minutes<ten', 'ten', /is a number/, undefined],
    ['progress:99..1', '99..1', /smaller number/, 'progress:1..99'],
    ['saved:2026-02-30', '2026-02-30', /no date/, undefined],
    ['saved>last 7 days', '>', /cannot be compared/, 'saved:last 7 days'],
  ])('%s', (typed, at, message, mend) => {
    const parsed = parseQuery(typed);
    if (parsed.ok) throw new Error('It was read.');
    expect([typed.slice(parsed.error.start, parsed.error.end), parsed.error.mend]).toEqual([at, mend]);
    expect(parsed.error.message).toMatch(message);
  });
});

test('whatever is typed is a query, or an error at a place in it', () => {
  const typed = fc.oneof(
    fc.string({ unit: 'binary', maxLength: 60 }),
    fc
      .array(
        fc.constantFrom(
          '(',
          ')',
          '"',
          '-',
          ' ',
          'OR',
          'AND',
          'NOT',
          ':',
          '<',
          '>=',
          'tag',
          'is:',
          'saved:',
          'last 7 days',
          'a',
          '2026',
          '..',
          '10',
          '𝒳',
        ),
        { maxLength: 25 },
      )
      .map((parts) => parts.join('')),
  );
  fc.assert(
    fc.property(typed, (text) => {
      const parsed = parseQuery(text);
      if (parsed.ok) return;
      expect(parsed.error.start).toBeGreaterThanOrEqual(0);
      expect(parsed.error.end).toBeLessThanOrEqual(text.length);
      expect(parsed.error.end).toBeGreaterThan(parsed.error.start);
    }),
    { numRuns: 1_200 },
  );
  for (const endless of ['(', 'NOT ', '-(']) expect(parseQuery(endless.repeat(20_000)).ok).toBe(false);
});

test('written and read again, a query is the same', () => {
  const word = fc
    .oneof(
      fc.constantFrom(
        'marsh',
        'OR',
        '-x',
        'tag:a',
        'a b',
        'http://x.test',
        '(',
        'not',
        'last 7 days',
        '10:30',
        'é雨',
        'a<b',
      ),
      fc.stringMatching(/^[^"]{1,12}$/),
    )
    .filter((w) => w.trim() === w && w !== '');
  const term = fc.oneof(
    fc.record({ words: word, phrase: fc.boolean() }).map(({ words: w, phrase }) => ({
      type: 'words' as const,
      words: w,
      phrase: phrase || /[\s()"]|^-|^(OR|AND|NOT)$|^[a-z]+[:<>=]|^#[\p{L}\p{M}\p{N}_/-]+$/iu.test(w),
      start: 0,
      end: 0,
    })),
    fc
      .record({ words: fc.stringMatching(/^[a-z]{1,9}$/), scope: fc.constantFrom(...SCOPES), phrase: fc.boolean() })
      .map((t) => ({ type: 'words' as const, ...t, start: 0, end: 0 })),
    fc
      .constantFrom(...NAMES.is)
      .map((value) => ({ type: 'name' as const, field: 'is' as const, value, start: 0, end: 0 })),
    fc
      .stringMatching(/^[A-Za-z][A-Za-z ]{0,12}[a-z]$/)
      .map((value) => ({ type: 'name' as const, field: 'in' as const, value, start: 0, end: 0 })),
    fc
      .record({ field: fc.constantFrom(...NUMBERS), least: fc.nat(500), over: fc.nat(500) })
      .map(({ field, least, over }) => ({
        type: 'number' as const,
        field,
        least,
        most: least + over,
        start: 0,
        end: 0,
      })),
    fc
      .record({
        many: fc.integer({ min: 1, max: 400 }),
        way: fc.constantFrom('last' as const, 'next' as const),
        unit: fc.constantFrom('day' as const, 'week' as const, 'month' as const),
      })
      .map(({ many, way, unit }) => ({
        type: 'date' as const,
        field: unit === 'day' ? ('saved' as const) : ('due' as const),
        operator: '=' as const,
        // A single day is written as today, which is counted back.
        days: way === 'last' ? { last: many, unit } : { next: unit === 'day' ? many + 1 : many, unit },
        start: 0,
        end: 0,
      })),
  );
  const { query } = fc.letrec<{ query: Query }>((tie) => ({
    query: fc.oneof(
      { maxDepth: 4, withCrossShrink: true },
      term as fc.Arbitrary<Query>,
      tie('query').map((of): Query => ({ type: 'not', of })),
      fc.record({
        type: fc.constantFrom('all' as const, 'any' as const),
        of: fc.array(tie('query'), { minLength: 2, maxLength: 4 }),
      }),
    ),
  }));
  fc.assert(
    fc.property(query, (made) => expect(read(writeQuery(made))).toEqual(bare(made))),
    { numRuns: 700 },
  );
});

describe('days', () => {
  // ISO 8601 calendar dates; the Gregorian calendar's leap years.
  test.each<[string, unknown]>([
    ['2024-02', { from: '2024-02-01', to: '2024-02-29' }],
    ['1900-02', { from: '1900-02-01', to: '1900-02-28' }],
    ['2000-02-29', { from: '2000-02-29', to: '2000-02-29' }],
    ['2026', { from: '2026-01-01', to: '2026-12-31' }],
    ['last week', { last: 1, unit: 'week' }],
    ['Last 3 Months', { last: 3, unit: 'month' }],
    ['last 0 days', undefined],
    ['2026-13', undefined],
    ['2026-04-31', undefined],
    ['2026-09-02..2026-09-01', undefined],
    ['soon', undefined],
  ])('%s', (typed, days) => expect(readDays(typed)).toEqual(days));
  test('are written as they are read', () => {
    for (const typed of ['2026-09-01', '2026-01-01..2026-12-31', 'today', 'last 7 days', 'last week', 'last 3 months'])
      expect(writeDays(readDays(typed)!)).toBe(typed);
  });
});
