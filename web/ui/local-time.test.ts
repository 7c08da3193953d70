import { expect, test } from '@jest/globals';
import { instantOf, typedOf } from './local-time';

// Rules of the tz database: in Berlin clocks go forward at 2:00 on 29 March 2026, and back at 3:00 on 25 October; in
// New York on 8 March and 1 November; Kathmandu is 5:45 ahead of UTC and never changes.
test.each([
  ['2026-11-27T16:00', 'Europe/Berlin', '2026-11-27T15:00:00.000Z'],
  ['2026-07-01T16:00', 'Europe/Berlin', '2026-07-01T14:00:00.000Z'],
  ['2026-03-29T01:59', 'Europe/Berlin', '2026-03-29T00:59:00.000Z'],
  ['2026-03-29T03:00', 'Europe/Berlin', '2026-03-29T01:00:00.000Z'],
  ['2026-03-29T02:30', 'Europe/Berlin', undefined],
  ['2026-03-08T02:00', 'America/New_York', undefined],
  ['2026-10-25T02:30', 'Europe/Berlin', '2026-10-25T00:30:00.000Z'],
  ['2026-11-27T16:00', 'Asia/Kathmandu', '2026-11-27T10:15:00.000Z'],
  ['2026-02-30T10:00', 'Europe/Berlin', undefined],
  ['2026-13-01T10:00', 'UTC', undefined],
  ['tomorrow', 'UTC', undefined],
  ['', 'UTC', undefined],
])('%s in %s', (typed, zone, instant) => {
  expect(instantOf(typed, zone)).toBe(instant);
  if (instant) expect(typedOf(instant, zone)).toBe(typed);
});
