import { expect, test } from '@jest/globals';
import { readRange } from './read-range';

// RFC 9110, 14.1.2: its examples for a representation of 10,000 bytes, as half-open ranges.
test.each<[string, object]>([
  ['bytes=0-499', { start: 0, end: 500 }],
  ['bytes=500-999', { start: 500, end: 1000 }],
  ['bytes=-500', { start: 9500, end: 10_000 }],
  ['bytes=9500-', { start: 9500, end: 10_000 }],
  ['bytes=9500-99999', { start: 9500, end: 10_000 }],
  ['bytes=-99999', { start: 0, end: 10_000 }],
])('%s of 10,000 bytes', (header, range) => {
  expect(readRange(header, 10_000)).toEqual(range);
});

test('what is not understood is answered with the whole, what is not there with nothing', () => {
  expect(
    [undefined, 'lines=1-2', 'bytes=0-1,4-5', 'bytes=-', 'bytes=9-3'].map((header) => readRange(header, 100)),
  ).toEqual(Array(5).fill('whole'));
  expect([readRange('bytes=100-', 100), readRange('bytes=-0', 100), readRange('bytes=0-', 0)]).toEqual([
    'none',
    'none',
    'none',
  ]);
});

test('a long range comes in pieces', () => {
  expect(readRange('bytes=5-', 50_000_000)).toEqual({ start: 5, end: 5 + 2 * 1024 * 1024 });
});
