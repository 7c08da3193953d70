import { differenceInCalendarDays } from 'date-fns';

/** Seconds for a card (common practice). */
const PER_CARD = 20;

/** How long so many cards take, as in “about 4 minutes”. */
export function timeFor(cards: number): string {
  const minutes = Math.max(1, Math.round((cards * PER_CARD) / 60));
  return minutes === 1 ? 'about a minute' : `about ${minutes} minutes`;
}

const MINUTE = 60_000;

/** When a card comes back, in words: “in 10 minutes”, “tomorrow”, “on Sun 6 December”. */
export function comesBack(iso: string, now = new Date()): string {
  const at = new Date(iso);
  const minutes = Math.max(1, Math.round((at.getTime() - now.getTime()) / MINUTE));
  if (minutes < 60) return minutes === 1 ? 'in a minute' : `in ${minutes} minutes`;
  const days = daysAhead(iso, now);
  if (days <= 0) return 'later today';
  if (days === 1) return 'tomorrow';
  const year = at.getFullYear() === now.getFullYear() ? {} : { year: 'numeric' as const };
  return `on ${at.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'long', ...year }).replace(',', '')}`;
}

/** In how many days it comes back, by the calendar. */
export const daysAhead = (iso: string, now = new Date()): number => differenceInCalendarDays(new Date(iso), now);

const TIMES = ['not seen before', 'seen once', 'seen twice', 'seen three times', 'seen four times', 'seen five times'];
export const seenWords = (times: number): string => TIMES[times] ?? `seen ${times} times`;
