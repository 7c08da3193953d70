import { expect, test } from '@jest/globals';
import { addSpan, covered, dwellOn, removeSpan, shareRead, type Spans } from './index';

test('spans join where they touch and stay sorted', () => {
  let spans: Spans = [];
  for (const [s, e] of [
    [10, 20],
    [30, 40],
    [20, 30],
    [0, 5],
  ] as const)
    spans = addSpan(spans, s, e);
  expect(spans).toEqual([
    [0, 5],
    [10, 40],
  ]);
  expect(covered(spans)).toBe(35);
});

test('adding what is covered gives the same object back', () => {
  const spans: Spans = [[0, 10]];
  expect(addSpan(spans, 2, 8)).toBe(spans);
  expect(addSpan(spans, 5, 5)).toBe(spans);
});

test('what was not read after all is taken out, and what is left stays', () => {
  const spans: Spans = [
    [0, 10],
    [20, 30],
  ];
  expect(removeSpan(spans, 5, 25)).toEqual([
    [0, 5],
    [25, 30],
  ]);
  expect(removeSpan(spans, 22, 24)).toEqual([
    [0, 10],
    [20, 22],
    [24, 30],
  ]);
  expect(removeSpan(spans, 0, 40)).toEqual([]);
  expect(removeSpan(spans, 10, 20)).toBe(spans);
});

test('a block is read after long enough on screen, not at a glance', () => {
  const text = 'word '.repeat(100).trim();
  const block = { start: 0, end: text.length, role: 'paragraph' as const, path: '0' };
  const glance = dwellOn(text, [block], 1000, { dwell: new Map(), spans: [] });
  expect(glance.spans).toEqual([]);
  expect(dwellOn(text, [block], 14_000, glance).spans).toEqual([[0, text.length]]);
});

test('two blocks on screen share the time', () => {
  const text = 'one two three.\nfour five six.';
  const blocks = [
    { start: 0, end: 14, role: 'paragraph' as const, path: '0' },
    { start: 15, end: 29, role: 'paragraph' as const, path: '1' },
  ];
  expect(dwellOn(text, blocks, 1000, { dwell: new Map(), spans: [] }).spans).toEqual([]);
  expect(dwellOn(text, blocks, 1500, { dwell: new Map(), spans: [] }).spans).toHaveLength(2);
});

test('the share read is what the spans cover, never more than all of it', () =>
  expect([
    shareRead([], 100),
    shareRead(
      [
        [0, 25],
        [50, 75],
      ],
      100,
    ),
    shareRead([[0, 1]], 3),
    shareRead([[0, 300]], 100),
    shareRead([], 0),
  ]).toEqual([0, 0.5, 0.3333, 1, 0]));
