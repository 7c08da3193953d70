import fc from 'fast-check';
import { describe, expect, test } from '@jest/globals';
import {
  asksFor,
  boundsOf,
  completionAt,
  EMPTY_FORM,
  formOf,
  meaningful,
  parseQuery,
  placesOf,
  snippetOf,
  toggled,
  typedFrom,
} from '.';

describe('completing what is typed', () => {
  const known = {
    tag: ['essay', 'accretion', 'essay/opening'],
    in: ['Field course B', 'Essays'],
    by: ['Odile Farrant'],
  };
  test.each<[string, string[]]>([
    ['ta|', ['tag:']],
    ['mud ha|', ['has:']],
    ['tag:|', ['tag:essay', 'tag:accretion', 'tag:essay/opening']],
    ['tag:op|', ['tag:essay/opening']],
    ['#acc|', ['#accretion']],
    ['in:fi|', ['in:"Field course B"']],
    ['in:"Fie|"', ['in:"Field course B"']],
    ['is:re|', ['is:reading', 'is:read', 'is:to-read', 'is:shared']],
    ['-is:fin|', ['is:finished']],
    ['(by:odi|)', ['by:"Odile Farrant"']],
    ['saved:la|', ['saved:last 7 days', 'saved:last month']],
    ['minutes:|', ['minutes<10', 'minutes>=5']],
    ['mud |', []],
    ['xyz|', []],
    ['tag:essay |', []],
  ])('%s', (typed, labels) => {
    const caret = typed.indexOf('|');
    const text = typed.replace('|', '');
    expect(completionAt(text, caret, known)?.options.map((o) => o.label) ?? []).toEqual(labels);
  });
  test('what is chosen can be read', () => {
    for (const typed of ['in:"Fie', 'in:fi', 'mud is:re', 'saved:', 'minutes:', '#acc']) {
      const { from, to, options } = completionAt(typed, typed.length, known)!;
      for (const { insert } of options)
        expect(parseQuery(typed.slice(0, from) + insert + typed.slice(to))).toMatchObject({ ok: true });
    }
  });
});

describe('a value is added to a query and taken from it', () => {
  test.each<[string, 'is' | 'tag' | 'in', string, string]>([
    ['', 'is', 'reading', 'is:reading'],
    ['is:reading mud', 'is', 'finished', 'mud is:finished'],
    ['is:reading mud', 'is', 'reading', 'mud'],
    ['is:reading', 'is', 'mine', 'is:reading is:mine'],
    ['tag:essay', 'tag', 'mud', 'tag:essay tag:mud'],
    ['a OR b', 'in', 'Field course', '(a OR b) in:"Field course"'],
    ['(mud', 'tag', 'x', '(mud tag:x'],
  ])('%s', (typed, field, value, after) => expect(toggled(typed, field, value)).toBe(after));
  test('and is seen to be asked for', () =>
    expect([
      asksFor('mud is:reading', 'is', 'reading'),
      asksFor('-is:reading', 'is', 'reading'),
      asksFor('(', 'is', 'reading'),
    ]).toEqual([true, false, false]));
});

describe('a query and the form for those who do not type one are the same', () => {
  test.each([
    '',
    'mud marsh',
    '"salt pan" mud -eels',
    'title:marsh note:"why so" tag:essay',
    'in:"Field course B" is:reading has:note minutes<=10 saved:last 7 days',
    'kind:claim type:pdf by:farrant',
    'mud (a OR b) tag:x tag:y minutes>3',
    'site:review published:2024 -tag:x',
  ])('%s', (typed) => {
    const form = formOf(typed)!;
    expect(parseQuery(typedFrom(form)).ok).toBe(true);
    expect(formOf(typedFrom(form))).toEqual(form);
    const bare = (t: string) => {
      const p = parseQuery(t);
      return p.ok && p.query?.type === 'all'
        ? p.query.of
            .map((q) => JSON.stringify(q, (k, v: unknown) => (k === 'start' || k === 'end' ? undefined : v)))
            .sort()
        : [];
    };
    expect(bare(typedFrom(form))).toEqual(bare(typed));
  });
  test('filling in one field changes that field’s part of the query, and nothing else', () => {
    const other = [
      'mud',
      '-eels',
      '"salt pan"',
      'title:marsh',
      'tag:essay',
      'tag:y',
      '(marsh OR gate)',
      '(a OR -b OR (c d))',
      '-(a b)',
      'is:reading',
      'minutes>3',
      'saved:last 7 days',
      'site:review',
    ];
    const parts = (typed: string): string[] => {
      const p = parseQuery(typed);
      if (!p.ok || !p.query) return [];
      const of = p.query.type === 'all' ? p.query.of : [p.query];
      return of.map((q) => JSON.stringify(q, (k, v: unknown) => (k === 'start' || k === 'end' ? undefined : v))).sort();
    };
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...other), { maxLength: 6 }), (of) => {
        const typed = of.join(' ');
        const form = formOf(typed)!;
        expect(parts(typedFrom(form))).toEqual(parts(typed));
        expect(parts(typedFrom({ ...form, by: 'farrant' }))).toEqual([...parts(typed), ...parts('by:farrant')].sort());
        if (form.tag)
          expect(parts(typedFrom({ ...form, tag: '' }))).toEqual(
            parts(typed).filter((part) => part !== parts(`tag:${form.tag}`)[0]),
          );
      }),
    );
  });
  test('what no field holds stays as it was typed; what cannot be read is no form', () => {
    expect(formOf('mud (a OR b) tag:x tag:y')).toEqual({
      ...EMPTY_FORM,
      words: 'mud',
      tag: 'x',
      rest: '(a OR b) tag:y',
    });
    expect(formOf('(mud')).toBeUndefined();
  });
});

test('words that are signs only are passed over', () => {
  const read = (typed: string) => {
    const p = parseQuery(typed);
    return p.ok ? meaningful(p.query) : undefined;
  };
  expect(read('salt & marsh')).toMatchObject({ type: 'all', of: [{ words: 'salt' }, { words: 'marsh' }] });
  expect([read('&'), read('-&'), read('(& OR §) mud')]).toMatchObject([undefined, undefined, { words: 'mud' }]);
});

test('days are counted back or ahead from the day it is, months to the day beside the same day', () => {
  expect([
    boundsOf({ last: 7, unit: 'day' }, '2026-03-03'),
    boundsOf({ last: 2, unit: 'week' }, '2026-03-14'),
    boundsOf({ last: 1, unit: 'month' }, '2026-03-31'),
    boundsOf({ last: 13, unit: 'month' }, '2026-01-15'),
    boundsOf({ next: 7, unit: 'day' }, '2026-02-26'),
    boundsOf({ next: 1, unit: 'month' }, '2026-01-31'),
    boundsOf({ next: 2, unit: 'week' }, '2026-12-25'),
  ]).toEqual([
    { from: '2026-02-25', to: '2026-03-03' },
    { from: '2026-03-01', to: '2026-03-14' },
    { from: '2026-03-01', to: '2026-03-31' },
    { from: '2024-12-16', to: '2026-01-15' },
    { from: '2026-02-26', to: '2026-03-04' },
    { from: '2026-01-31', to: '2026-02-27' },
    { from: '2026-12-25', to: '2027-01-07' },
  ]);
});

describe('words are marked where they stand', () => {
  const at = (text: string, words: string, phrase = false) =>
    placesOf(text, [{ words, phrase }]).map(({ start, end }) => text.slice(start, end));
  test.each<[string, string, boolean, string[]]>([
    ['The marshes of the marsh, unmarshed', 'marsh', false, ['marshes', 'marsh']],
    ['The marshes of the marsh', 'marsh', true, ['marsh']],
    ['Levées, levée and LEVE\u0301E', 'levee', false, ['Levées', 'levée', 'LEVE\u0301E']],
    ['a salt  marsh', 'salt marsh', true, ['salt  marsh']],
    ['潮が引くと泥の干潟', '干潟', false, ['干潟']],
    ['İstanbul mud', 'mud', false, ['mud']],
    ['𝒳 mud', 'mud', false, ['mud']],
    ['x', '§', false, []],
  ])('%s: %s', (text, words, phrase, found) => expect(at(text, words, phrase)).toEqual(found));
  test('a snippet is cut between words around the first of them', () => {
    const text = `${'before it all '.repeat(20)}the coarser silt lies${' and after it more'.repeat(20)}`;
    const { marked, place } = snippetOf(text, [{ words: 'silt', phrase: true }])!;
    expect(text.slice(place.start, place.end)).toBe('silt');
    expect([marked[0]!.text, marked.at(-1)!.text, marked.filter((p) => p.hit)]).toEqual([
      '…',
      '…',
      [{ text: 'silt', hit: true }],
    ]);
    expect(marked[1]!.text).toMatch(/^(before|it|all) /);
    expect(snippetOf('nothing here', [{ words: 'silt', phrase: true }])).toBeUndefined();
    // A sigma at the end of a word is the same letter (Unicode, CaseFolding).
    expect(snippetOf('ὁ πλοῦς ἦν μακρός', [{ words: 'ΠΛΟΥΣ', phrase: true }])!.marked[1]).toEqual({
      text: 'πλοῦς',
      hit: true,
    });
  });
});
