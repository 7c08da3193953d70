import { answered, chanceOf } from '@avrelle/core/review';
import type { CardAnswer, CardId, Me, Review, ReviewCard, ReviewWish } from '@avrelle/core/wire';
import { AppError } from '../errors';
import type { Writing } from '../writing';
import { cardFor, cardsFor } from './cards';
import { dayBegins, perDay } from './days';
import {
  answeredSince,
  answerWith,
  cardCounts,
  comingBefore,
  dueBefore,
  forgetAnswer,
  insertAnswer,
  lastAnswer,
  setMemory,
  storedCard,
  type Chosen,
  type DueRow,
} from './queries';
import { wishFor } from './wish';

/** So many cards come at once; the next ones are asked for before these are through. */
const AT_ONCE = 20;
/** Who is through with everything else need not wait for a card that comes back within so many milliseconds. */
const SOON = 20 * 60_000;
const DAY = 86_400_000;
/** For so many days it is told how many cards come back. */
const DAYS = 14;

interface Asked extends Chosen {
  readonly day?: string | undefined;
  readonly ahead: number;
}

/** What there is to practise today: cards of one source together, those that wait longest first. */
export function reviewFor(world: Writing, { id: me }: Me, asked: Asked): Review {
  const { db, now } = world;
  const today = dayBegins(asked.day ?? now().slice(0, 10), asked.ahead);
  const done = answeredSince(db, me, instant(today));
  const rows = dueBefore(db, me, instant(today + DAY), asked);
  const { due, held, next } = within(rows, wishFor(db, me), done, now());
  const ordered = inOrder(due);
  const { total, resting } = cardCounts(db, me);
  const coming = comingBefore(db, me, instant(today + DAYS * DAY));
  return {
    cards: cardsFor(
      world,
      me,
      ordered.slice(0, AT_ONCE).map((row) => row.id),
    ),
    due: due.length,
    held,
    next,
    sources: bySource(ordered),
    days: perDay(coming, today, DAYS),
    answeredToday: done.allOfThem,
    total,
    resting,
  };
}

/** How many cards somebody has to practise today. */
export function cardsDue({ db, now }: Pick<Writing, 'db' | 'now'>, { id: me }: Me, { day, ahead }: Asked): number {
  const today = dayBegins(day ?? now().slice(0, 10), ahead);
  const rows = dueBefore(db, me, instant(today + DAY), {});
  return within(rows, wishFor(db, me), answeredSince(db, me, instant(today)), now()).due.length;
}

const instant = (at: number): string => new Date(at).toISOString();

interface Within {
  readonly due: readonly DueRow[];
  /** How many are over what one wants to practise a day. */
  readonly held: number;
  readonly next: string | null;
}

/** What is due of these, within the wish; what is being learnt comes back however many there were. */
function within(
  rows: readonly DueRow[],
  wish: ReviewWish,
  done: { readonly new: number; readonly review: number },
  now: string,
): Within {
  const left = { new: Math.max(0, wish.newPerDay - done.new), review: Math.max(0, wish.answersPerDay - done.review) };
  const learning = rows.filter(({ state }) => state === 'learning' || state === 'relearning');
  const again = learning.filter((row) => row.due <= now);
  const known = rows.filter((row) => row.state === 'review');
  const fresh = rows.filter((row) => row.state === 'new');
  const due = [...again, ...known.slice(0, left.review), ...fresh.slice(0, left.new)];
  const later = learning.filter((row) => row.due > now);
  const soon = later.filter((row) => Date.parse(row.due) - Date.parse(now) <= SOON);
  return {
    due: due.length > 0 ? due : soon,
    held: Math.max(0, known.length - left.review) + Math.max(0, fresh.length - left.new),
    next: later[0]?.due ?? null,
  };
}

/**
 * Those of one source stand together, in the order of its text; first the source of the card that waits longest, last
 * those without one.
 */
function inOrder(rows: readonly DueRow[]): DueRow[] {
  const sources = new Map<string | null, DueRow[]>();
  for (const row of rows.toSorted((a, b) => (a.due < b.due ? -1 : 1))) {
    const group = sources.get(row.sourceId);
    if (group) group.push(row);
    else sources.set(row.sourceId, [row]);
  }
  const alone = sources.get(null) ?? [];
  sources.delete(null);
  return [...sources.values(), alone].flatMap((group) => group.toSorted((a, b) => a.start - b.start));
}

function bySource(rows: readonly DueRow[]): Review['sources'] {
  const counts = new Map<string | null, { id: string | null; title: string; count: number }>();
  for (const { sourceId, title } of rows) {
    const there = counts.get(sourceId);
    if (there) there.count++;
    else counts.set(sourceId, { id: sourceId, title, count: 1 });
  }
  return [...counts.values()];
}

/**
 * Writes down how a card came back to somebody, under the id their page made; the same again changes nothing. Throws
 * `stale` where the card was answered elsewhere since it was shown.
 */
export function putAnswer(world: Writing, me: Me, cardId: CardId, answer: CardAnswer & { readonly id: string }) {
  const { db, now, events } = world;
  return db.transaction((): ReviewCard => {
    const there = answerWith(db, answer.id);
    if (there && (there.personId !== me.id || there.cardId !== cardId))
      throw new AppError('id_taken', { id: answer.id });
    const { memory } = storedCard(db, me.id, cardId)!;
    if (!there) {
      if (memory.seen !== answer.seen)
        throw new AppError(
          'stale',
          { yours: answer.seen, current: memory.seen },
          { current: cardFor(world, me.id, cardId) },
        );
      // What is sent later was given when its author says, but never in the time to come.
      const at = answer.at !== undefined && answer.at < now() ? answer.at : now();
      const { retention } = wishFor(db, me.id);
      const after = answered(memory, answer.rating, { at, wish: retention, seed: cardId });
      const { rating } = answer;
      insertAnswer(db, {
        id: answer.id,
        me: me.id,
        cardId,
        at: after.last!,
        rating,
        chance: chanceOf(memory, at),
        before: memory,
      });
      setMemory(db, me.id, cardId, after);
      events.append({ type: 'review', personId: me.id });
    }
    return cardFor(world, me.id, cardId);
  });
}

/** Takes an answer back; one that is not there is back already. Throws `stale` where another came after it. */
export function takeAnswerBack(world: Writing, me: Me, cardId: CardId, id: string): ReviewCard {
  const { db, events } = world;
  return db.transaction(() => {
    const there = answerWith(db, id);
    if (there?.personId === me.id && there.cardId === cardId) {
      const last = lastAnswer(db, me.id, cardId);
      if (last !== id) {
        const current = cardFor(world, me.id, cardId);
        throw new AppError('stale', { yours: there.before.seen + 1, current: current.seen }, { current });
      }
      setMemory(db, me.id, cardId, there.before);
      forgetAnswer(db, id);
      events.append({ type: 'review', personId: me.id });
    }
    return cardFor(world, me.id, cardId);
  });
}
