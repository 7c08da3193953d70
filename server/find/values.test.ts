import { expect, test } from '@jest/globals';
import { Values, within } from './values';

test('values are bound by names of their own, never written into a condition', () => {
  const values = new Values();
  const [first, second] = [values.hold("x' OR 1"), values.hold(2)];
  expect([first, second, values.bound]).toEqual(['@v0', '@v1', { v0: "x' OR 1", v1: 2 }]);
});

test('a table is made once for all who ask for the same rows', () => {
  const values = new Values();
  expect(values.with).toBe('');
  expect([values.table('SELECT 1'), values.table('SELECT 2'), values.table('SELECT 1')]).toEqual(['t0', 't1', 't0']);
  expect(values.with).toBe('WITH t0 AS MATERIALIZED (SELECT 1), t1 AS MATERIALIZED (SELECT 2)');
});

test.each([
  ['mud', '%mud%'],
  ['50 %', '%50 \\%%'],
  ['a_b', '%a\\_b%'],
  ['a\\b', '%a\\\\b%'],
])('%s is looked for as it is written', (words, pattern) => expect(within(words)).toBe(pattern));
