/** The same day so many days or months before, as `YYYY-MM-DD`; where a month has no such day, its last one. */
export function dayBefore(today: string, by: { readonly days: number } | { readonly months: number }): string {
  const [year, month, day] = today.split('-').map(Number) as [number, number, number];
  if ('days' in by) return new Date(Date.UTC(year, month - 1, day - by.days)).toISOString().slice(0, 10);
  const last = new Date(Date.UTC(year, month - by.months, 0)).getUTCDate();
  return new Date(Date.UTC(year, month - 1 - by.months, Math.min(day, last))).toISOString().slice(0, 10);
}
