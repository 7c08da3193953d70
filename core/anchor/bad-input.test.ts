import { expect, test } from '@jest/globals';
import { describe, indexText, locateAll } from './index';

const LENGTH = 100_000;
/** Words without end, the ordinary text that times are compared with. */
const ordinary = Array.from({ length: LENGTH / 8 }, (_, n) =>
  `w${((n * 7919) % 99991).toString(36)}`.padEnd(7, 'a'),
).join(' ');

const work = (text: string): ReturnType<typeof locateAll> => {
  const index = indexText(text);
  const anchors = Array.from({ length: 100 }, (_, n) => describe(index, { start: n * 900, end: n * 900 + 60 }));
  return locateAll(indexText(text.slice(300)), anchors);
};

test.each([
  ['equal characters', 'a'.repeat(LENGTH)],
  ['NUL', '\0'.repeat(LENGTH)],
  ['lone surrogates', '\ud800'.repeat(LENGTH)],
  [
    'no spaces',
    Array.from({ length: LENGTH }, (_, i) => String.fromCharCode(97 + ((i * i * 7 + i * 3) % 26))).join(''),
  ],
  ['one line again and again', 'The same line again and again.\n'.repeat(LENGTH / 31)],
  ['combining marks', `e${'\u0301'.repeat(20)}`.repeat(LENGTH / 21)],
])('a text of %s is answered for, each range within it or lost', (_, text) => {
  for (const found of work(text)) {
    if (found.state === 'lost') continue;
    expect(found.start).toBeGreaterThanOrEqual(0);
    expect(found.end).toBeGreaterThan(found.start);
    expect(found.end).toBeLessThanOrEqual(text.length - 300);
  }
});

test('an anchor in an empty text is lost, and so is one without words', () => {
  const anchor = describe(indexText(ordinary), { start: 100, end: 140 });
  expect(locateAll(indexText(''), [anchor])).toEqual([{ state: 'lost', confidence: 0, candidates: [] }]);
  expect(locateAll(indexText(ordinary), [{ ...anchor, quote: { exact: '', prefix: '', suffix: '' } }])).toMatchObject([
    { state: 'lost' },
  ]);
});

test('positions that make no sense lead nowhere wrong', () => {
  const anchor = describe(indexText(ordinary), { start: 5000, end: 5060 });
  const odd = [
    { start: 10 ** 9, end: 10 ** 9 + 60 },
    { start: 0, end: 60 },
  ].map((position) => locateAll(indexText(ordinary), [{ ...anchor, position }])[0]);
  for (const found of odd) expect(found).toMatchObject({ state: 'shifted', start: 5000, end: 5060 });
});
