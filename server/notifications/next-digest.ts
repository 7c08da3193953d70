import { TZDate } from '@date-fns/tz';
import { addDays, addHours, set, startOfHour } from 'date-fns';
import type { Schedule } from './settings-queries';

/**
 * When the next mail is due after an instant, in RFC 3339: at the next full hour, or at an hour of the day where the
 * person is. On a day whose hour is skipped, at the one after it; where an hour comes twice, once.
 */
export function nextDigest({ every, hour, zone }: Schedule, after: string): string {
  if (every === 'hour') return addHours(startOfHour(new Date(after)), 1).toISOString();
  const now = new TZDate(after, zone);
  const today = atHour(now, hour);
  return instant(today.getTime() > now.getTime() ? today : atHour(addDays(now, 1), hour));
}

const atHour = (day: TZDate, hours: number): TZDate => set(day, { hours, minutes: 0, seconds: 0, milliseconds: 0 });
const instant = (at: Date): string => new Date(at.getTime()).toISOString();

/** The end of the day after, where somebody is, in RFC 3339. */
export function endOfTomorrow(zone: string, now: string): string {
  return instant(atHour(addDays(new TZDate(now, zone), 2), 0));
}
