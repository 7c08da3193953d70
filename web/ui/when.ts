import { differenceInCalendarDays, isSameYear } from 'date-fns';

// Made once: making one takes longer than a hundred uses.
const CLOCK = new Intl.DateTimeFormat('en-GB', { hour: 'numeric', minute: '2-digit' });
const WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short' });
const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'long' });
const DATE = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });
const DATE_OF_YEAR = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** "today 9:40", "Tue", "9 Nov", "9 Nov 2025": as short as it can be without doubt. `now` is the present. */
export function when(iso: string, now = new Date()): string {
  const date = new Date(iso);
  const days = differenceInCalendarDays(now, date);
  if (days <= 0) return `today ${CLOCK.format(date)}`;
  if (days < 7) return WEEKDAY.format(date);
  return day(iso, now);
}

/** "9 Nov", with the year when it is another. */
export function day(iso: string, now = new Date()): string {
  const date = new Date(iso);
  return (isSameYear(date, now) ? DATE : DATE_OF_YEAR).format(date);
}

/** "9 min", at least one. */
export const minutes = (value: number): string => `${Math.max(1, Math.round(value))} min`;

/** "Ines Kestle" → "Ines K."; a title stays: "Dr Aldous". */
export function shortName(name: string): string {
  const words = name.trim().split(/\s+/);
  if (words.length < 2 || /^(Dr|Prof|Mr|Ms|Mrs)\.?$/.test(words[0]!)) return name;
  return `${words[0]} ${words.at(-1)![0]}.`;
}

/** "1 mark", "3 marks". */
export const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** "today 16:00", "tomorrow 9:00", "Fri 16:00", "4 Dec 16:00": when something is due, or opens. */
export function dueAt(iso: string, now = new Date()): string {
  const date = new Date(iso);
  const days = differenceInCalendarDays(date, now);
  const time = CLOCK.format(date);
  if (days === 0) return `today ${time}`;
  if (days === 1) return `tomorrow ${time}`;
  return `${days > 1 && days < 7 ? WEEKDAY.format(date) : day(iso, now)} ${time}`;
}

/** "Fri 4" and "December": a day as it stands beside what is due then. */
export const dayInTwo = (iso: string): readonly [day: string, month: string] => {
  const date = new Date(iso);
  return [`${WEEKDAY.format(date)} ${date.getDate()}`, MONTH.format(date)];
};

/** "16:00". */
export const timeOf = (iso: string): string => CLOCK.format(new Date(iso));
