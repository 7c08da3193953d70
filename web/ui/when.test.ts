import { expect, test } from '@jest/globals';
import { count, day, dueAt, minutes, shortName, when } from './when';

const now = new Date(2026, 10, 23, 14, 0);
const at = (...parts: [number, number, number, number?, number?]) => new Date(...parts).toISOString();

test('a time is as short as it can be without doubt', () => {
  expect(when(at(2026, 10, 23, 9, 40), now)).toBe('today 9:40');
  expect(when(at(2026, 10, 17, 23, 59), now)).toBe('Tue');
  expect(when(at(2026, 10, 16, 8), now)).toBe('16 Nov');
  expect(day(at(2025, 0, 9), now)).toBe('9 Jan 2025');
});

test('when something is due, from the day it is on', () => {
  expect(dueAt(at(2026, 10, 23, 16), now)).toBe('today 16:00');
  expect(dueAt(at(2026, 10, 24, 9, 5), now)).toBe('tomorrow 9:05');
  expect(dueAt(at(2026, 10, 29, 16), now)).toBe('Sun 16:00');
  expect(dueAt(at(2026, 10, 30, 16), now)).toBe('30 Nov 16:00');
  expect(dueAt(at(2026, 10, 22, 16), now)).toBe('22 Nov 16:00');
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
