import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Nodes } from 'mdast';
import { markQuote } from '../query';
import { INLINE_TYPES, type Inline, type InlineType } from '../text';
import { parseMarkdown, plainWords, quotation } from '.';

/** Expected words after the CommonMark 0.31 specification, read as a person reads what it shows. */
test.each([
  [
    '**Main** *claim*, see [here](avrelle:annotation/x).\n\n- one\n- two\n\n> said `x`',
    'Main claim, see here.\none\ntwo\nsaid x',
  ],
  ['3 * 4 = 12, snake_case and 2 \\* 3', '3 * 4 = 12, snake_case and 2 * 3'],
  ['first\\\nsecond', 'first\nsecond'],
  ['1\\) not a list', '1) not a list'],
  ['a \\(bracket\\) \\= sign', 'a (bracket) = sign'],
  ['tide&#x20;', 'tide'],
  ['R&amp;D &copy; &nbsp;x', 'R&D © \u00A0x'],
  ['1. one\n2. two', 'one\ntwo'],
  ['# Head\n\nwords', 'Head\nwords'],
  ['energy $E = mc^2$ at ebb', 'energy E = mc^2 at ebb'],
  ['between $5-$10 and $20', 'between $5-$10 and $20'],
  ['![a peg](avrelle:picture/x) stands', 'a peg stands'],
  ['no signs at all', 'no signs at all'],
])('the short form of %j', (markdown, words) => {
  expect(plainWords(markdown)).toBe(words);
});

test('a formula may hold blanks within, but not at its ends', () => {
  const types = (markdown: string): string[] => {
    const [paragraph] = parseMarkdown(markdown).children;
    return paragraph?.type === 'paragraph' ? paragraph.children.map((child) => child.type) : [];
  };
  expect(types('$a + b$')).toEqual(['inlineMath']);
  expect(types('$ a$')).toEqual(['text']);
  expect(types('$a$5')).toEqual(['text', 'text']);
});

describe('quotations', () => {
  const QUOTE = 'The tide turns at peg 7.\nThen H2O runs.';
  const inline = (words: string, type: InlineType, value = ''): Inline => ({
    start: 100 + QUOTE.indexOf(words),
    end: 100 + QUOTE.indexOf(words) + words.length,
    type,
    value,
  });
  const markdownOf = (...inlines: Inline[]): string => quotation(markQuote(QUOTE, [], 100, inlines));

  test('keep what their words were', () => {
    expect(
      markdownOf(
        inline('tide turns', 'link', 'https://a.test/x'),
        inline('turns', 'emphasis'),
        inline('peg 7', 'code'),
      ),
    ).toBe('The [tide *turns*](https://a.test/x) at `peg 7`.\n\nThen H2O runs.');
    expect(markdownOf(inline('2', 'sub'), inline('The', 'strong'))).toBe(
      '**The** tide turns at peg 7.\n\nThen H<sub>2</sub>O runs.',
    );
    expect(markdownOf(inline('H2O', 'formula', 'H_2O'))).toContain('Then $H_2O$ runs.');
  });

  test('say what their pictures show, and cut what reaches beyond them', () => {
    const picture: Inline = { start: 103, end: 103, type: 'picture', value: 'A peg' };
    expect(markdownOf(picture, { start: 90, end: 103, type: 'strong', value: '' })).toMatch(
      /^\*\*The\*\* \\\[A peg] tide/,
    );
    expect(markdownOf({ start: 0, end: 99, type: 'strong', value: '' })).toBe(
      'The tide turns at peg 7.\n\nThen H2O runs.',
    );
  });

  test('read back, they have the same words', () => {
    const wordsOf = (node: Nodes): string => {
      if ('children' in node) return node.children.map(wordsOf).join('');
      return 'value' in node && node.type !== 'html' ? node.value : '';
    };
    const quote = fc
      .stringMatching(/^[a-zA-Z0-9*_`[\]()<>.!$ -]{1,30}$/)
      .map((text) => text.trim().replace(/\s+/g, ' '))
      .filter((text) => text !== '');
    const styles = fc.array(
      fc.record({
        from: fc.nat(30),
        length: fc.integer({ min: 1, max: 12 }),
        type: fc.constantFrom(
          ...INLINE_TYPES.filter((type) => type !== 'picture' && type !== 'formula' && type !== 'code'),
        ),
      }),
      { maxLength: 1 },
    );
    fc.assert(
      fc.property(quote, styles, (text, given) => {
        const inlines = given.map(({ from, length, type }): Inline => ({
          start: from,
          end: from + length,
          type,
          value: type === 'link' ? 'https://a.test/' : '',
        }));
        expect(
          parseMarkdown(quotation(markQuote(text, [], 0, inlines)))
            .children.map(wordsOf)
            .join('')
            .trim(),
        ).toBe(text);
      }),
    );
  });
});

test('words that were looked for are marked across what they are', () => {
  const pieces = markQuote('the ebb tide', [{ start: 4, end: 12 }] as never, 0, [
    { start: 8, end: 12, type: 'emphasis', value: '' },
  ]);
  expect(pieces).toEqual([
    { text: 'the ', hit: false },
    { text: 'ebb ', hit: true },
    { text: 'tide', hit: true, as: [{ type: 'emphasis', value: '' }] },
  ]);
});
