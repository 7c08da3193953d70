import { useReducer } from 'react';
import { v7 } from 'uuid';
import type { CardRating } from '@avrelle/core/review';
import type { Review, ReviewCard } from '@avrelle/core/wire';
import { BEGIN, cardAfter, cardAtHand, cardsLeft, practise, type Answered } from './practice';
import { useAnswers } from './use-answers';

export interface Practising {
  /** The one at hand; undefined once all are through. */
  readonly card: ReviewCard | undefined;
  readonly lifted: boolean;
  readonly answered: readonly Answered[];
  /** Those that came and are left, of whatever source. */
  readonly left: readonly ReviewCard[];
  /** How many are left, with those that have not come yet. */
  readonly due: number;
  /** Of the source of the card at hand: how many are through, and are left. */
  readonly ofSource: { readonly done: number; readonly left: number };
  /** Answers that are kept here for want of a connection. */
  readonly waiting: number;
  lift(): void;
  answer(rating: CardRating): void;
  /** Takes the last answer back. */
  back(): void;
}

/** Practising what is due: the next card is there at once, and answers are stored meanwhile. */
export function usePractice(review: Review | undefined): Practising {
  const [now, dispatch] = useReducer(practise, BEGIN);
  const { send, waiting } = useAnswers();
  const came = review?.cards ?? [];
  const left = cardsLeft(now, came);
  const card = cardAtHand(now, left);
  // What is at hand stays so, whatever comes anew.
  if (card?.id !== now.current) dispatch({ type: 'go', to: card?.id });
  const of = (one: ReviewCard): boolean => one.source?.id === card?.source?.id;
  const due = left.length + Math.max(0, (review?.due ?? 0) - came.length);
  const ofSource = review?.sources.find(({ id }) => id === (card?.source?.id ?? null))?.count ?? 0;
  const here = left.filter(of).length;
  return {
    card,
    lifted: now.lifted,
    answered: now.answered,
    left,
    due,
    ofSource: {
      done: now.answered.filter(({ card: one }) => of(one) && one.id !== card?.id).length,
      left: Math.max(here, ofSource - (came.filter(of).length - here)),
    },
    waiting,
    lift: () => dispatch({ type: 'lift' }),
    answer: (rating) => {
      if (!card) return;
      const id = v7();
      send({ type: 'answer', cardId: card.id, id, rating, seen: card.seen, at: new Date().toISOString() });
      dispatch({ type: 'answer', card, rating, id, next: cardAfter(left, card)?.id });
    },
    back: () => {
      const last = now.answered.at(-1);
      if (!last) return;
      send({ type: 'back', cardId: last.card.id, id: last.id });
      dispatch({ type: 'back' });
    },
  };
}
