/** Cards that were given to a class. */
import { array, boolean, object, type InferType } from 'yup';
import type { CardRating } from '../review/rating';
import type { CardRow } from './card';
import { idSchema, type PersonId } from './ids';

/** From so many students on, what they answered is told together: of fewer, it would tell of each. */
export const FEWEST_TOLD = 3;

export const giveCardsSchema = object({
  cardIds: array(idSchema().required())
    .min(1, 'Choose at least one card.')
    .max(500, 'Give at most 500 cards at once.')
    .required(),
  /** Those who teach see who answers how from now on. */
  named: boolean().default(false),
}).noUnknown();
export type GiveCards = InferType<typeof giveCardsSchema>;

/** How a card goes for the students of a class together. */
export interface ClassCardHow {
  /** Students who answered. */
  readonly people: number;
  readonly answers: number;
  readonly forgot: number;
  /** Of those who answered, how many knew it at once. */
  readonly knewAtOnce: number;
  /** Of answers after it had been learnt, how many remembered it; 0 and 0 as long as too few gave them. */
  readonly learnt: number;
  readonly remembered: number;
}

/** A card of a class, as those see it who teach it. */
export interface ClassCard extends Pick<
  CardRow,
  'id' | 'words' | 'question' | 'sourceId' | 'title' | 'annotationId' | 'share'
> {
  /** Who gave it. */
  readonly by: string;
  readonly mine: boolean;
  readonly givenAt: string;
  /** From when on it is seen who answers how; null where it is not. */
  readonly namedFrom: string | null;
  /** Null as long as fewer than `FEWEST_TOLD` students answered. */
  readonly how: ClassCardHow | null;
}

export interface ClassCards {
  readonly cards: readonly ClassCard[];
  /** How many students practise. */
  readonly students: number;
  /** Cards of mine that can be given: of what the class reads, or without a passage. */
  readonly mine: readonly Pick<CardRow, 'id' | 'words' | 'question' | 'sourceId' | 'title'>[];
}

/** How one student answered a card. */
export interface NamedAnswers {
  readonly id: PersonId;
  readonly name: string;
  readonly answers: number;
  readonly forgot: number;
  readonly last: CardRating;
  readonly at: string;
}
