import { describe as group, expect, test } from '@jest/globals';
import { describe, fromSelectors, indexText, SelectorError, toSelectors } from './index';

const TEXT =
  'Sea lavender 𝒳 grows where the marsh is flooded seldom. Where it is flooded often, glasswort grows. Sea lavender flowers in July.';
const index = indexText(TEXT);
const words = (given: unknown): string => fromSelectors(index, given).quote.exact;
const range = (quote: string) => ({ start: TEXT.indexOf(quote), end: TEXT.indexOf(quote) + quote.length });

test('every selector that is given leads back to the passage, each by itself', () => {
  for (const quote of ['glasswort grows', 'Sea lavender flowers', 'flooded often, glasswort']) {
    for (const selector of toSelectors(index, describe(index, range(quote))))
      expect([selector.type, words(selector)]).toEqual([selector.type, quote]);
  }
});

test('positions count characters, not UTF-16 units (Web Annotation Data Model, 4.2.5)', () => {
  expect(toSelectors(index, describe(index, range('grows where')))[1]).toEqual({
    type: 'TextPositionSelector',
    start: 15,
    end: 26,
  });
});

/** The examples of the Recommendation (W3C, Web Annotation Data Model, 23 February 2017), their texts filled in around them. */
group("the Recommendation's own examples", () => {
  test('4.2.4 Text Quote Selector', () => {
    const text = 'She said: this is an annotation that has some context. That was an annotation, too.';
    const anchor = fromSelectors(indexText(text), {
      type: 'TextQuoteSelector',
      exact: 'anotation',
      prefix: 'this is an ',
      suffix: ' that has some',
    });
    expect(anchor.quote.exact).toBe('annotation');
    expect(anchor.position.start).toBe(21);
  });

  test('4.2.5 Text Position Selector', () => {
    const text = Array.from({ length: 1000 }, (_, n) => String.fromCharCode(97 + (n % 26))).join('');
    expect(fromSelectors(indexText(text), { type: 'TextPositionSelector', start: 412, end: 795 }).position).toEqual({
      start: 412,
      end: 795,
    });
  });

  test('4.2.9 Range Selector: from the beginning of the one to the beginning of the other', () => {
    expect(
      words({
        type: 'RangeSelector',
        startSelector: { type: 'TextQuoteSelector', exact: 'Where it is' },
        endSelector: { type: 'TextQuoteSelector', exact: ', glasswort' },
      }),
    ).toBe('Where it is flooded often');
  });
});

test('a quotation with a position takes the passage there of several', () => {
  const second = TEXT.indexOf('Sea lavender', 5);
  expect(
    fromSelectors(index, [
      { type: 'TextQuoteSelector', exact: 'Sea lavender' },
      { type: 'TextPositionSelector', start: second - 1, end: second + 11 },
    ]).position.start,
  ).toBe(second);
});

test.each([
  [
    'a quotation that is not there',
    { type: 'TextQuoteSelector', exact: 'Eelgrass in deep water' },
    /leads to a passage/,
  ],
  ['a position behind the end', { type: 'TextPositionSelector', start: 500, end: 600 }, /leads to a passage/],
  ['a position that is a word', { type: 'TextPositionSelector', start: 'two', end: 6 }, /malformed: start/],
  ['a quotation without words', { type: 'TextQuoteSelector' }, /malformed: exact/],
  [
    'an unknown type',
    { type: 'SvgSelector', value: '<svg/>' },
    /SvgSelector are not understood; expected TextQuoteSelector/,
  ],
  ['no object', 7, /not understood/],
  ['none', [], /1 to 20/],
])('%s: an error that says why', (_, given, why) => {
  expect(() => fromSelectors(index, given)).toThrow(SelectorError);
  expect(() => fromSelectors(index, given)).toThrow(why);
});
