import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { seeded } from '../random';
import { agreement, cohensKappa, krippendorffsAlpha, type Values } from './agreement';

/** Readers' rows as they are printed, one letter a unit, a dot where one made nothing of it; here a row a unit. */
function unitsOf(...readers: readonly string[]): Values {
  return [...readers[0]!].map((_, n) => readers.map((row) => (row[n] === '.' ? null : row[n]!)));
}

// K. Krippendorff, "Computing Krippendorff's Alpha-Reliability" (2011); the numbers are from memory.
test.each([
  ['A: two readers, two values', 0.095, unitsOf('0100000010', '1110010000')],
  ['B: two readers, five values', 0.692, unitsOf('aabbdcccedda', 'babbbccceddd')],
  ['C: four readers, values missing', 0.743, unitsOf('123321412...', '1233224125.3', '.3332342251.', '12332441251.')],
])('α as in the worked example %s', (_, alpha, units) => {
  expect(krippendorffsAlpha(units)).toBeCloseTo(alpha, 3);
});

test('κ of a table of 20, 5, 10 and 15 is 0.4 (a textbook example, from memory)', () => {
  const units = [
    ...Array.from({ length: 20 }, () => ['yes', 'yes']),
    ...Array.from({ length: 5 }, () => ['yes', 'no']),
    ...Array.from({ length: 10 }, () => ['no', 'yes']),
    ...Array.from({ length: 15 }, () => ['no', 'no']),
  ];
  expect(cohensKappa(units)).toBeCloseTo(0.4, 10);
});

test('units and readers are counted; κ stands only where there are two readers', () => {
  expect(agreement(unitsOf('aab', 'abb', 'bab'))).toEqual({ alpha: expect.any(Number), units: 3, readers: 3 });
  expect(agreement(unitsOf('ab', 'ab'))).toEqual({ alpha: 1, units: 2, readers: 2, kappa: 1 });
});

test('where nothing can be compared, or nothing differs, there is no figure', () => {
  for (const units of [
    [],
    [['a']],
    [
      ['a', null],
      [null, 'b'],
    ],
    unitsOf('aaa', 'aaa'),
  ])
    expect([krippendorffsAlpha(units), cohensKappa(units)]).toEqual([null, null]);
});

const someValues = fc.array(
  fc.array(fc.option(fc.constantFrom('claim', 'doubt', 'term'), { nil: null }), { minLength: 3, maxLength: 3 }),
  { minLength: 1, maxLength: 30 },
);

test('α does not hang on the order of readers or units, nor on what values are called; it is never above 1', () => {
  fc.assert(
    fc.property(someValues, (units) => {
      const alpha = krippendorffsAlpha(units);
      const turned = units.toReversed().map((row) => row.toReversed());
      const renamed = units.map((row) => row.map((value) => value && `kind ${value}`));
      for (const same of [turned, renamed]) {
        const again = krippendorffsAlpha(same);
        if (alpha === null) expect(again).toBeNull();
        else expect(again).toBeCloseTo(alpha, 10);
      }
      expect(alpha ?? 0).toBeLessThanOrEqual(1);
    }),
  );
});

test('who chooses by chance agrees by chance', () => {
  const random = seeded(7);
  const any = () => ['claim', 'doubt', 'term'][Math.floor(random() * 3)]!;
  const units = Array.from({ length: 4_000 }, () => [any(), any()]);
  expect(krippendorffsAlpha(units)!).toBeCloseTo(0, 1);
  expect(cohensKappa(units)!).toBeCloseTo(krippendorffsAlpha(units)!, 2);
});
