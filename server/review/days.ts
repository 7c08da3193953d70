const DAY = 86_400_000;

/** When a day begins where clocks are so many minutes ahead of UTC, in milliseconds since 1970. */
export const dayBegins = (day: string, ahead: number): number => Date.parse(`${day}T00:00:00Z`) - ahead * 60_000;

/** How many of these times fall on each day; what is over already counts for the first. */
export function perDay(times: readonly string[], today: number, days: number): number[] {
  const counts = new Array<number>(days).fill(0);
  for (const time of times) {
    const day = Math.max(0, Math.floor((Date.parse(time) - today) / DAY));
    if (day < days) counts[day]!++;
  }
  return counts;
}

/** The Monday of the week a time is in, as `YYYY-MM-DD`. */
export function mondayOf(time: string, ahead: number): string {
  const here = new Date(Date.parse(time) + ahead * 60_000);
  const since = (here.getUTCDay() + 6) % 7;
  return new Date(here.getTime() - since * DAY).toISOString().slice(0, 10);
}
