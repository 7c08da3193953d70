const pad = (n: number): string => String(n).padStart(2, '0');
const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' });
const at = (month: string, day: number): Date =>
  new Date(Date.UTC(Number(month.slice(0, 4)), Number(month.slice(5)) - 1, day));

/** A day where we are, as `YYYY-MM-DD`. */
export const dayName = (date: Date): string =>
  `${date.getFullYear()}-${pad(date.getMonth() + 1)}-${pad(date.getDate())}`;
/** "November 2026" for `2026-11`. */
export const monthName = (month: string): string => MONTH.format(at(month, 1));
/** So many months later, as `YYYY-MM`. */
export const nextMonth = (month: string, by: number): string => {
  const n = Number(month.slice(0, 4)) * 12 + Number(month.slice(5)) - 1 + by;
  return `${Math.floor(n / 12)}-${pad((n % 12) + 1)}`;
};

/** The weeks of a month, from Monday to Sunday (ISO 8601), whole ones: with days of the months beside it. */
export function daysOfMonth(month: string): readonly (readonly string[])[] {
  const before = (at(month, 1).getUTCDay() + 6) % 7;
  const length = at(nextMonth(month, 1), 0).getUTCDate();
  return Array.from({ length: Math.ceil((before + length) / 7) }, (_, week) =>
    Array.from({ length: 7 }, (__, day) =>
      at(month, week * 7 + day - before + 1)
        .toISOString()
        .slice(0, 10),
    ),
  );
}
