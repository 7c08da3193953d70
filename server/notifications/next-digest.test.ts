import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { endOfTomorrow, nextDigest } from './next-digest';

const daily = (hour: number, zone: string) => ({ every: 'day', hour, zone }) as const;

test('by the hour, at the next full one', () => {
  const hourly = { every: 'hour', hour: 7, zone: 'Europe/London' } as const;
  expect(nextDigest(hourly, '2026-12-01T09:12:30.000Z')).toBe('2026-12-01T10:00:00.000Z');
  expect(nextDigest(hourly, '2026-12-01T10:00:00.000Z')).toBe('2026-12-01T11:00:00.000Z');
});

test('by the day, at the hour where the person is; in summer as in winter', () => {
  expect(nextDigest(daily(7, 'America/New_York'), '2026-12-01T09:12:30.000Z')).toBe('2026-12-01T12:00:00.000Z');
  expect(nextDigest(daily(7, 'America/New_York'), '2026-07-01T12:00:00.000Z')).toBe('2026-07-02T11:00:00.000Z');
  // A quarter of an hour off the others.
  expect(nextDigest(daily(7, 'Asia/Kathmandu'), '2026-12-01T01:15:00.000Z')).toBe('2026-12-02T01:15:00.000Z');
});

test('an hour that is skipped in spring comes one later; one that comes twice in autumn, once', () => {
  expect(nextDigest(daily(1, 'Europe/London'), '2026-03-28T12:00:00.000Z')).toBe('2026-03-29T01:00:00.000Z');
  const first = nextDigest(daily(1, 'Europe/London'), '2026-10-24T12:00:00.000Z');
  expect(first).toBe('2026-10-25T01:00:00.000Z');
  expect(nextDigest(daily(1, 'Europe/London'), first)).toBe('2026-10-26T01:00:00.000Z');
});

test('in every zone of the platform: later than now, within a day and two hours, at that hour', () => {
  const zones = Intl.supportedValuesOf('timeZone');
  const at = fc.date({ min: new Date('2020-01-01'), max: new Date('2035-01-01'), noInvalidDate: true });
  fc.assert(
    fc.property(at, fc.constantFrom(...zones), fc.integer({ min: 0, max: 23 }), (after, zone, hour) => {
      const next = new Date(nextDigest(daily(hour, zone), after.toISOString()));
      const hours = (next.getTime() - after.getTime()) / 3_600_000;
      expect(hours).toBeGreaterThan(0);
      expect(hours).toBeLessThanOrEqual(26);
      const clock = new Intl.DateTimeFormat('en', { timeZone: zone, hour: 'numeric', hourCycle: 'h23' });
      const shown = Number(clock.format(next));
      // Only where clocks are put forward does the hour not exist.
      if (shown !== hour) expect(Number(clock.format(new Date(next.getTime() - 3_600_000)))).not.toBe(hour);
    }),
    { numRuns: 300 },
  );
});

test('tomorrow ends where the person is', () => {
  expect(endOfTomorrow('America/New_York', '2026-12-02T03:00:00.000Z')).toBe('2026-12-03T05:00:00.000Z');
  expect(endOfTomorrow('Pacific/Auckland', '2026-12-01T10:00:00.000Z')).toBe('2026-12-02T11:00:00.000Z');
});
