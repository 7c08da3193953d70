import { expect, test } from '@jest/globals';
import { daysOfMonth, monthName, nextMonth } from './month';

// ISO 8601: weeks begin on Monday; the Gregorian calendar.
test('a month is whole weeks from Monday to Sunday', () => {
  const weeks = daysOfMonth('2026-11');
  expect([weeks.length, weeks[0]![0], weeks[0]![6], weeks.at(-1)![0], weeks.at(-1)![6]]).toEqual([
    6,
    '2026-10-26',
    '2026-11-01',
    '2026-11-30',
    '2026-12-06',
  ]);
  expect(daysOfMonth('2021-02').flat()).toHaveLength(28);
  expect(daysOfMonth('2024-02').flat()).toContain('2024-02-29');
});
test('months follow each other over the turn of a year', () =>
  expect([nextMonth('2026-11', 1), nextMonth('2026-12', 1), nextMonth('2026-01', -1), monthName('2026-03')]).toEqual([
    '2026-12',
    '2027-01',
    '2025-12',
    'March 2026',
  ]));
