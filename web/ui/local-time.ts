import { TZDate } from '@date-fns/tz';
import { format } from 'date-fns';

/** How a field for date and time writes them (HTML, local date and time). */
const TYPED = "yyyy-MM-dd'T'HH:mm";
const PARTS = /^(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d)$/;

/** By so much clocks are put back as a rule, in milliseconds. */
const HOUR = 3_600_000;

/** The time zone somebody is in, by its name in the tz database. */
export const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/**
 * The instant of a date and time in a zone, RFC 3339 in UTC; undefined where there is none: not in the calendar, or left
 * out when clocks go forward. Of two, when clocks go back, the first.
 */
export function instantOf(typed: string, zone = ownZone()): string | undefined {
  const [, year, month, day, hour, minute] = PARTS.exec(typed)?.map(Number) ?? [];
  if (minute === undefined) return undefined;
  const at = new TZDate(year!, month! - 1, day!, hour!, minute, zone).getTime();
  return [at - HOUR, at]
    .map((time) => new Date(time).toISOString())
    .find((instant) => typedOf(instant, zone) === typed);
}

/** An instant as it is typed in a zone. */
export const typedOf = (instant: string, zone = ownZone()): string => format(new TZDate(instant, zone), TYPED);
