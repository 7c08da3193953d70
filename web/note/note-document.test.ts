import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fromMarkdown, toMarkdown, wordsOf } from './note-document';

const ID = '0193a1b2-0000-7000-8000-000000000001';

test.each([
  ['words', 'Plain words.\n\nAnd a second paragraph.'],
  ['emphasis', 'This is **bold**, *slanted*, **_both_** and `code`.'],
  ['a link in bold', `**See [the *gate*](avrelle:annotation/${ID})**`],
  ['lists', '- one\n- two\n  - within\n\n1. first\n2. second'],
  ['a list that begins elsewhere', '4. four\n5. five'],
  ['a quotation', '> said\n>\n> and said again'],
  ['code', '```python\nprint("*")\n```'],
  ['formulas', 'So $96 / 30 = 3.2$, and\n\n$$\nh = \\frac{a}{b}\n$$'],
  ['a picture', `![peg nine](avrelle:picture/${'ab'.repeat(32)})`],
  ['lines', 'one\\\ntwo'],
  ['a person and a tag', `[@Tomas Rell](avrelle:person/${ID}) on #accretion`],
])('%s: read, and written as before', (_, markdown) => {
  expect(toMarkdown(fromMarkdown(markdown))).toBe(markdown);
});

test('what the editor has no tool for stays as it was written', () => {
  expect(wordsOf(fromMarkdown('<b>raw</b> and [ref][1]\n\n[1]: http://x.test'))).toContain('<b>');
  expect(toMarkdown(fromMarkdown('one\ntwo'))).toBe('one\\\ntwo');
  expect(toMarkdown({ type: 'doc', content: [{ type: 'paragraph' }] })).toBe('');
});

test('tags are looked for in words, not in code', () => {
  const words = wordsOf(fromMarkdown('#peat and `#code`\n\n```\n#block\n```'));
  expect([words.includes('#peat'), words.includes('#code'), words.includes('#block')]).toEqual([true, false, false]);
});

describe('whatever is typed comes back', () => {
  const typed = fc.string({
    unit: fc.constantFrom(...'ab *_`#$[](){}<>!&\\-+1.)~|"\'/:@=^é雨'),
    minLength: 1,
    maxLength: 40,
  });
  const squeezed = (words: string): string => words.replace(/[ \t]+/g, ' ').trim();
  test('as a paragraph', () => {
    fc.assert(
      fc.property(typed, (words) => {
        const text = squeezed(words);
        fc.pre(text !== '');
        expect(
          fromMarkdown(
            toMarkdown({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] }),
          ),
        ).toEqual({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] });
      }),
      { numRuns: 500 },
    );
  });
  test('in bold within a list', () => {
    fc.assert(
      fc.property(typed, (words) => {
        const text = squeezed(words);
        fc.pre(text !== '');
        const doc = {
          type: 'doc',
          content: [
            {
              type: 'bulletList',
              content: [
                {
                  type: 'listItem',
                  content: [
                    {
                      type: 'paragraph',
                      content: [
                        { type: 'text', text: 'so ' },
                        { type: 'text', text, marks: [{ type: 'bold' }] },
                      ],
                    },
                  ],
                },
              ],
            },
          ],
        };
        expect(wordsOf(fromMarkdown(toMarkdown(doc))).trim()).toBe(`so ${text}`);
      }),
      { numRuns: 300 },
    );
  });
});

test('an empty formula is none, wherever it stands, and swallows nothing', () => {
  const empty = { type: 'formula', attrs: { tex: ' ' } };
  const text = (words: string) => ({ type: 'text', text: words });
  const note = toMarkdown({
    type: 'doc',
    content: [
      { type: 'paragraph', content: [empty, text('the ebb')] },
      { type: 'formulaBlock', attrs: { tex: '' } },
      { type: 'paragraph', content: [text('runs '), empty, text('on')] },
    ],
  });
  expect(note).toBe('the ebb\n\nruns on');
  expect(wordsOf(fromMarkdown(note))).toBe('the ebb\nruns on\n');
});

test('an empty quotation is nothing to write down, and one that was comes as an empty line', () => {
  expect(
    toMarkdown({
      type: 'doc',
      content: [
        { type: 'blockquote', content: [{ type: 'paragraph' }] },
        { type: 'paragraph', content: [{ type: 'text', text: 'on' }] },
      ],
    }),
  ).toBe('on');
  expect(fromMarkdown('>').content).toEqual([{ type: 'blockquote', content: [{ type: 'paragraph' }] }]);
});

test('code keeps what it stands in', () => {
  for (const note of ['**see `peg` there**', '*`a` b*', '[`x`](https://a.test/)'])
    expect(toMarkdown(fromMarkdown(note))).toBe(note);
});

test('two prices are no formula, here as where notes are shown', () => {
  expect(wordsOf(fromMarkdown('between $5-$10')).trim()).toBe('between $5-$10');
});

test('a note that ends with a chosen name and a blank is written without an entity', () => {
  const doc = (content: object[]) => ({ type: 'doc', content: [{ type: 'paragraph', content }] });
  const name = {
    type: 'text',
    text: '@Ines',
    marks: [{ type: 'link', attrs: { href: 'avrelle:person/019ab000-0000-7000-8000-000000000000' } }],
  };
  expect(toMarkdown(doc([{ type: 'text', text: 'See ' }, name, { type: 'text', text: ' ' }]))).toBe(
    'See [@Ines](avrelle:person/019ab000-0000-7000-8000-000000000000)',
  );
  expect(toMarkdown(doc([{ type: 'text', text: ' a ' }, { type: 'hardBreak' }, { type: 'text', text: ' b ' }]))).toBe(
    'a\\\nb',
  );
});

test('an excerpt is one whole, wherever it stands, and goes out as it came', () => {
  const excerpt = `> rose by **117** mm\n>\n> ∴ [Farrant 2026, ¶ 3](avrelle:annotation/${ID}) #tag\n>\n> So.`;
  const note = `Words.\n\n${excerpt}\n\n- in a list\n\n  ${excerpt.replaceAll('\n', '\n  ')}\n\n> > quoted\n\nEnd.`;
  const doc = fromMarkdown(note, { excerpts: true });
  const whole = { type: 'excerpt', attrs: { annotationId: ID, markdown: excerpt } };
  expect(doc.content?.[1]).toEqual(whole);
  expect(doc.content?.[2]?.content?.[0]?.content?.[1]).toEqual(whole);
  expect(toMarkdown(doc)).toBe(note);
  expect(fromMarkdown(excerpt).content?.[0]?.type).toBe('blockquote');
});
