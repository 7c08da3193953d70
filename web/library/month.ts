import { addMonths, eachDayOfInterval, eachWeekOfInterval, endOfMonth, endOfWeek, formatISO, parseISO } from 'date-fns';

const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric' });
/** ISO 8601. */
const MONDAY = { weekStartsOn: 1 } as const;
const beginOf = (month: string): Date => parseISO(`${month}-01`);

/** A day where we are, as `YYYY-MM-DD`. */
export const dayName = (date: Date): string => formatISO(date, { representation: 'date' });
/** "November 2026" for `2026-11`. */
export const monthName = (month: string): string => MONTH.format(beginOf(month));
/** So many months later, as `YYYY-MM`. */
export const nextMonth = (month: string, by: number): string => dayName(addMonths(beginOf(month), by)).slice(0, 7);

/** The weeks of a month, from Monday to Sunday, whole ones: with days of the months beside it. */
export function daysOfMonth(month: string): readonly (readonly string[])[] {
  const begin = beginOf(month);
  return eachWeekOfInterval({ start: begin, end: endOfMonth(begin) }, MONDAY).map((monday) =>
    eachDayOfInterval({ start: monday, end: endOfWeek(monday, MONDAY) }).map(dayName),
  );
}
