import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { graphemeEnd, graphemeStart } from './grapheme';

test('boundaries are those of the whole text segmented (UAX #29, through Intl.Segmenter)', () => {
  const pieces = fc.constantFrom(
    'a',
    ' ',
    'e\u0301',
    '\r\n',
    '\u{1f469}\u200d\u{1f52c}',
    '\u{1f1ec}\u{1f1f7}',
    '\u0915\u094d\u0937',
    '각',
    '\u{1d4b3}',
    '.',
  );
  fc.assert(
    fc.property(
      fc.array(pieces, { maxLength: 30 }).map((p) => p.join('')),
      (text) => {
        const starts = new Set(
          [...new Intl.Segmenter('und', { granularity: 'grapheme' }).segment(text)].map((s) => s.index),
        )
          .add(text.length)
          .add(0);
        for (let at = 0; at <= text.length; at++) {
          expect([at, graphemeStart(text, at) === at]).toEqual([at, starts.has(at)]);
          expect(starts.has(graphemeStart(text, at)) && starts.has(graphemeEnd(text, at))).toBe(true);
          expect(graphemeStart(text, at) <= at && graphemeEnd(text, at) >= at).toBe(true);
        }
      },
    ),
    { numRuns: 300, seed: 2 },
  );
});
