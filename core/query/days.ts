import type { Days } from './query';

const DAY = /^(\d{4})-(\d{2})-(\d{2})$/;
const MONTH = /^(\d{4})-(\d{2})$/;
const YEAR = /^(\d{4})$/;
const pad = (n: number): string => String(n).padStart(2, '0');
const isLeap = (year: number): boolean => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
/** Days of a month, January being 1 (Gregorian calendar). */
function daysOf(year: number, month: number): number {
  if (month === 2) return isLeap(year) ? 29 : 28;
  return [4, 6, 9, 11].includes(month) ? 30 : 31;
}

/** A day, a month or a year as the days from its first to its last (ISO 8601 dates); undefined for what is none. */
function span(word: string): { from: string; to: string } | undefined {
  if (YEAR.test(word)) return { from: `${word}-01-01`, to: `${word}-12-31` };
  const [, year, month, day] = DAY.exec(word) ?? MONTH.exec(word) ?? [];
  const last = year && month ? lastDay(Number(year), Number(month)) : 0;
  if (day === undefined) return last ? { from: `${word}-01`, to: `${word}-${pad(last)}` } : undefined;
  return Number(day) >= 1 && Number(day) <= last ? { from: word, to: word } : undefined;
}

/** 0 for a month that is none. */
const lastDay = (year: number, month: number): number => (month >= 1 && month <= 12 ? daysOf(year, month) : 0);

const UNITS = { day: 'day', days: 'day', week: 'week', weeks: 'week', month: 'month', months: 'month' } as const;
const COUNTED = /^last(?: (\d{1,4}))? (days?|weeks?|months?)$/;

/** Reads `2026-09-01`, `2026-09`, `2026`, `2026-09-01..2026-10-15`, `today`, `last 7 days`, `last week`; undefined for anything else. */
export function readDays(word: string): Days | undefined {
  const lower = word.trim().toLowerCase().replace(/\s+/g, ' ');
  const counted = COUNTED.exec(lower);
  if (lower === 'today') return { last: 1, unit: 'day' };
  if (counted)
    return Number(counted[1] ?? 1) > 0
      ? { last: Number(counted[1] ?? 1), unit: UNITS[counted[2] as keyof typeof UNITS] }
      : undefined;
  const [first = '', second] = lower.split('..');
  const from = span(first);
  const to = second === undefined ? from : span(second);
  return from && to && from.from <= to.to ? { from: from.from, to: to.to } : undefined;
}

const DAY_MS = 86_400_000;

/** The first and the last day meant, both as `YYYY-MM-DD`; `today` is the day it is where the question is asked. */
export function boundsOf(days: Days, today: string): { readonly from: string; readonly to: string } {
  if ('from' in days) return days;
  const at = new Date(`${today}T00:00:00Z`);
  const back = (n: number): string => new Date(at.getTime() - n * DAY_MS).toISOString().slice(0, 10);
  if (days.unit !== 'month') return { from: back(days.last * (days.unit === 'week' ? 7 : 1) - 1), to: today };
  // The day after the same day so many months ago; where that month has no such day, after its last.
  const month = at.getUTCFullYear() * 12 + at.getUTCMonth() - days.last;
  const year = Math.floor(month / 12);
  const of = (month % 12) + 1;
  const since = new Date(Date.UTC(year, of - 1, Math.min(at.getUTCDate(), daysOf(year, of))) + DAY_MS);
  return { from: since.toISOString().slice(0, 10), to: today };
}

/** As it is typed: read again, it is the same. */
export function writeDays(days: Days): string {
  if ('last' in days) {
    if (days.last > 1) return `last ${days.last} ${days.unit}s`;
    return days.unit === 'day' ? 'today' : `last ${days.unit}`;
  }
  return days.from === days.to ? days.from : `${days.from}..${days.to}`;
}
