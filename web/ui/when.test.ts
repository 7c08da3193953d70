import { expect, test } from '@jest/globals';
import { count, day, minutes, shortName, when } from './when';

const now = new Date(2026, 10, 23, 14, 0);
const at = (...parts: [number, number, number, number?, number?]) => new Date(...parts).toISOString();

test('a time is as short as it can be without doubt', () => {
  expect(when(at(2026, 10, 23, 9, 40), now)).toBe('today 9:40');
  expect(when(at(2026, 10, 17, 23, 59), now)).toBe('Tue');
  expect(when(at(2026, 10, 16, 8), now)).toBe('16 Nov');
  expect(day(at(2025, 0, 9), now)).toBe('9 Jan 2025');
});

test('names, counts and minutes in few signs', () => {
  expect([shortName('Ines Kestle'), shortName('Dr Aldous'), shortName('Odile')]).toEqual([
    'Ines K.',
    'Dr Aldous',
    'Odile',
  ]);
  expect([count(1, 'mark'), count(2, 'reply', 'replies')]).toEqual(['1 mark', '2 replies']);
  expect([minutes(0.2), minutes(8.6)]).toEqual(['1 min', '9 min']);
});
