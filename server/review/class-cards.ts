import {
  FEWEST_TOLD,
  type CardId,
  type ClassCardHow,
  type ClassCards,
  type ClassId,
  type GiveCards,
  type Me,
} from '@avrelle/core/wire';
import { classLabel, sourceAddedBy } from '../classes/queries';
import { AppError } from '../errors';
import type { Writing } from '../writing';
import {
  cardsGiven,
  cardsToGive,
  giveCard,
  howCardsGo,
  namedAnswers,
  studentsIn,
  takeCard,
} from './class-card-queries';
import { storedCard } from './queries';

/** The cards of a class for who teaches it, each with how it goes for the students together. */
export function classCardsFor({ db }: Writing, { id: me }: Me, classId: ClassId): ClassCards {
  const how = howCardsGo(db, classId);
  const toldOf = (id: CardId): ClassCardHow | null => {
    const numbers = how.get(id);
    if (!numbers || numbers.people < FEWEST_TOLD) return null;
    const { peopleLater, ...told } = numbers;
    return peopleLater < FEWEST_TOLD ? { ...told, learnt: 0, remembered: 0 } : told;
  };
  return {
    cards: cardsGiven(db, me, classId).map((card) => ({ ...card, how: toldOf(card.id) })),
    students: studentsIn(db, classId),
    mine: cardsToGive(db, me, classId),
  };
}

/**
 * Gives cards of one's own to a class; of those it has, what is seen of its answers is said anew. All or none. Throws
 * `not_found` for a card that is not one's own and not the class's, `source_not_in_class` where the class does not read
 * what one stands in.
 */
export function giveCards(world: Writing, me: Me, classId: ClassId, { cardIds, named }: GiveCards): ClassCards {
  const { db, now, events } = world;
  return db.transaction(() => {
    const there = new Set(cardsGiven(db, me.id, classId).map(({ id }) => id));
    for (const cardId of new Set(cardIds)) {
      if (!there.has(cardId)) mustBeGivable(world, me, classId, cardId);
      giveCard(db, { classId, cardId, namedFrom: named ? now() : null }, now());
    }
    events.append({ type: 'review', classId });
    return classCardsFor(world, me, classId);
  });
}

function mustBeGivable({ db }: Writing, me: Me, classId: ClassId, cardId: CardId): void {
  const card = storedCard(db, me.id, cardId);
  if (card?.ownerId !== me.id || card.deletedAt !== null) throw new AppError('not_found', { what: 'card' });
  if (card.hadSource && !(card.sourceId && sourceAddedBy(db, classId, card.sourceId)))
    throw new AppError('source_not_in_class', { className: classLabel(db, classId)!.name });
}

/** What the students know of it stays, should they get it again. */
export function takeCardBack({ db, events }: Writing, classId: ClassId, cardId: CardId): void {
  db.transaction(() => {
    if (takeCard(db, classId, cardId)) events.append({ type: 'review', classId });
  });
}

/** How each student answered a card since that is seen. Throws `not_found` where it is not. */
export function answersByName({ db }: Writing, me: Me, classId: ClassId, cardId: CardId) {
  const card = cardsGiven(db, me.id, classId).find(({ id }) => id === cardId);
  if (!card?.namedFrom) throw new AppError('not_found', { what: 'card' });
  return namedAnswers(db, classId, cardId);
}
