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
const COUNTED = /^(last|next)(?: (\d{1,4}))? (days?|weeks?|months?)$/;

/**
 * Reads `2026-09-01`, `2026-09`, `2026`, `2026-09-01..2026-10-15`, `today`, `last 7 days`, `last week`, `next 7 days`;
 * undefined for anything else.
 */
export function readDays(word: string): Days | undefined {
  const lower = word.trim().toLowerCase().replace(/\s+/g, ' ');
  const counted = COUNTED.exec(lower);
  if (lower === 'today') return { last: 1, unit: 'day' };
  if (counted) {
    const [, way, many = '1', word] = counted;
    const unit = UNITS[word as keyof typeof UNITS];
    if (Number(many) === 0) return undefined;
    return way === 'last' ? { last: Number(many), unit } : { next: Number(many), unit };
  }
  const [first = '', second] = lower.split('..');
  const from = span(first);
  const to = second === undefined ? from : span(second);
  return from && to && from.from <= to.to ? { from: from.from, to: to.to } : undefined;
}

const DAY_MS = 86_400_000;

/** The first and the last day meant, both as `YYYY-MM-DD`; `today` is the day it is where the question is asked. */
export function boundsOf(days: Days, today: string): { readonly from: string; readonly to: string } {
  if ('from' in days) return days;
  const [many, way] = 'last' in days ? [days.last, -1] : [days.next, 1];
  const furthest =
    days.unit === 'month'
      ? monthsFrom(today, many * way, -way)
      : daysFrom(today, way * (many * DAYS_IN[days.unit] - 1));
  return way < 0 ? { from: furthest, to: today } : { from: today, to: furthest };
}

const DAYS_IN = { day: 1, week: 7 } as const;
const daysFrom = (today: string, by: number): string =>
  new Date(Date.parse(`${today}T00:00:00Z`) + by * DAY_MS).toISOString().slice(0, 10);

/** So many days beside the same day so many months away; where that month has no such day, beside its last. */
function monthsFrom(today: string, by: number, beside: number): string {
  const at = new Date(`${today}T00:00:00Z`);
  const month = at.getUTCFullYear() * 12 + at.getUTCMonth() + by;
  const year = Math.floor(month / 12);
  const of = (month % 12) + 1;
  const same = `${String(year).padStart(4, '0')}-${pad(of)}-${pad(Math.min(at.getUTCDate(), daysOf(year, of)))}`;
  return daysFrom(same, beside);
}

/** As it is typed: read again, it is the same. */
export function writeDays(days: Days): string {
  if ('last' in days) {
    if (days.last > 1) return `last ${days.last} ${days.unit}s`;
    return days.unit === 'day' ? 'today' : `last ${days.unit}`;
  }
  if ('next' in days) return `next ${days.next > 1 ? `${days.next} ${days.unit}s` : days.unit}`;
  return days.from === days.to ? days.from : `${days.from}..${days.to}`;
}
