import type { Me, ReviewStatistics } from '@avrelle/core/wire';
import type { Writing } from '../writing';
import { rowOf } from './cards';
import { dayBegins, mondayOf, perDay } from './days';
import { answersSince, cardCounts, comingBefore, hardestCards, storedCards } from './queries';

const DAY = 86_400_000;
const WEEKS = 12;
const DAYS = 30;
const HARDEST = 10;

interface Asked {
  readonly day?: string | undefined;
  readonly ahead: number;
}

/** How the practising went: by week how much was remembered of what had been learnt, beside what was to be expected. */
export function statisticsFor({ db, now }: Writing, { id: me }: Me, { day, ahead }: Asked): ReviewStatistics {
  const today = dayBegins(day ?? now().slice(0, 10), ahead);
  const first = dayBegins(mondayOf(new Date(today - (WEEKS - 1) * 7 * DAY).toISOString(), ahead), ahead);
  const weeks = new Map(
    Array.from({ length: WEEKS }, (_, n) => {
      const from = mondayOf(new Date(first + n * 7 * DAY).toISOString(), ahead);
      return [from, { from, answers: 0, learnt: 0, remembered: 0, expected: 0 }];
    }),
  );
  for (const { at, rating, state, chance } of answersSince(db, me, new Date(first).toISOString())) {
    const week = weeks.get(mondayOf(at, ahead));
    if (!week) continue;
    week.answers++;
    if (state !== 'review') continue;
    week.learnt++;
    week.remembered += rating === 'forgot' ? 0 : 1;
    week.expected += chance ?? 0;
  }
  return {
    weeks: [...weeks.values()],
    days: perDay(comingBefore(db, me, new Date(today + DAYS * DAY).toISOString()), today, DAYS),
    hardest: storedCards(db, me, hardestCards(db, me, HARDEST)).map(rowOf),
    ...cardCounts(db, me),
  };
}
