import type { CardRating } from '@avrelle/core/review';
import type { CardId, ReviewCard } from '@avrelle/core/wire';

/** An answer that was given here. */
export interface Answered {
  readonly card: ReviewCard;
  readonly rating: CardRating;
  readonly id: string;
}

/** Practising, as far as it goes on here: the server is told, and not waited for. */
export interface Practice {
  readonly current: CardId | undefined;
  readonly lifted: boolean;
  /** The last one last. */
  readonly answered: readonly Answered[];
  /** How often each card was answered, as is known here; what comes with less is of before. */
  readonly seen: ReadonlyMap<CardId, number>;
  /** Taken back, and stands first again. */
  readonly back: ReviewCard | undefined;
}

export const BEGIN: Practice = {
  current: undefined,
  lifted: false,
  answered: [],
  seen: new Map(),
  back: undefined,
};

export type PracticeAction =
  | { readonly type: 'lift' }
  | {
      readonly type: 'answer';
      readonly card: ReviewCard;
      readonly rating: CardRating;
      readonly id: string;
      /** The one after it. */
      readonly next: CardId | undefined;
    }
  | { readonly type: 'back' }
  /** Another card is at hand. */
  | { readonly type: 'go'; readonly to: CardId | undefined };

export function practise(now: Practice, action: PracticeAction): Practice {
  switch (action.type) {
    case 'lift':
      return { ...now, lifted: true };
    case 'answer': {
      const { card, rating, id, next } = action;
      return {
        current: next,
        lifted: false,
        answered: [...now.answered, { card, rating, id }],
        seen: new Map(now.seen).set(card.id, card.seen + 1),
        back: undefined,
      };
    }
    case 'back': {
      const last = now.answered.at(-1);
      if (!last) return now;
      return {
        current: last.card.id,
        lifted: true,
        answered: now.answered.slice(0, -1),
        seen: new Map(now.seen).set(last.card.id, last.card.seen),
        back: last.card,
      };
    }
    case 'go':
      return now.current === action.to ? now : { ...now, current: action.to, lifted: false };
  }
}

/** The cards that are left of those that came, the one that was taken back first. */
export function cardsLeft({ seen, back }: Practice, came: readonly ReviewCard[]): readonly ReviewCard[] {
  const left = came.filter((card) => card.seen >= (seen.get(card.id) ?? 0) && card.id !== back?.id);
  return back ? [back, ...left] : left;
}

/** The card at hand; where it is gone, the first. */
export const cardAtHand = ({ current }: Practice, left: readonly ReviewCard[]): ReviewCard | undefined =>
  left.find((card) => card.id === current) ?? left[0];

/** The one that follows a card: the next of its source, else the next at all. */
export function cardAfter(left: readonly ReviewCard[], card: ReviewCard): ReviewCard | undefined {
  const at = left.findIndex((one) => one.id === card.id);
  const others = [...left.slice(at + 1), ...left.slice(0, Math.max(0, at))];
  return others.find((one) => one.source?.id === card.source?.id) ?? others[0];
}
