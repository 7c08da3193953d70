import { answered, chanceOf, newMemory, RATINGS } from '@avrelle/core/review';
import type {
  Annotation,
  AnnotationId,
  CardId,
  CardPage,
  CardPassage,
  CardPatch,
  CardPut,
  CardRow,
  Me,
  PersonId,
  ReviewCard,
} from '@avrelle/core/wire';
import { canRead } from '../access/access-queries';
import { annotationFor, annotationsFor } from '../annotations/queries';
import { AppError } from '../errors';
import type { Writing } from '../writing';
import { NO_PASSAGE, passageReader } from './passages';
import {
  cardsAsked,
  cardWords,
  insertCard,
  ownerOfCard,
  setMemory,
  setResting,
  storedCard,
  storedCards,
  updateCard,
  type CardsAsked,
  type CardWords,
  type StoredCard,
} from './queries';
import { wishFor } from './wish';

/** Cards of somebody as they are practised, in the order given. */
export function cardsFor(world: Writing, me: PersonId, ids: readonly CardId[]): ReviewCard[] {
  const { db, now } = world;
  const cards = storedCards(db, me, ids);
  const markOf = markReader(world, me, cards);
  const passageOf = passageReader(db);
  const { retention } = wishFor(db, me);
  const at = now();
  return cards.map((card) => {
    const { memory, annotationId, hadSource, sourceId, title, language } = card;
    return {
      id: card.id,
      version: card.version,
      question: card.question,
      answer: card.answer,
      slips: card.slips,
      covers: card.covers,
      annotationId,
      source: hadSource ? { id: sourceId, title, language } : null,
      passage: annotationId === null ? NO_PASSAGE : passageOf(markOf(card), card),
      given: card.given,
      createdAt: card.createdAt,
      state: memory.state,
      due: memory.due,
      seen: memory.seen,
      forgotten: memory.forgotten,
      resting: card.resting,
      chance: chanceOf(memory, at),
      comesBack: RATINGS.map((rating) => answered(memory, rating, { at, wish: retention, seed: card.id }).due),
    };
  });
}

/**
 * The mark of each card as one sees it; where one does not, but was given the card and reads its source, the passage its
 * giver marked, with their own note where that is the answer, and nothing of what others wrote there.
 */
function markReader({ db }: Writing, me: PersonId, cards: readonly StoredCard[]) {
  const seen = marksFor(db, me, cards);
  const unseen = cards.filter(({ ownerId, annotationId }) => ownerId !== me && !seen.has(annotationId ?? ''));
  const sources = new Set(unseen.flatMap((card) => card.sourceId ?? []));
  const readable = new Set([...sources].filter((id) => canRead(db, me, id)));
  const given = unseen.filter(({ sourceId }) => sourceId !== null && readable.has(sourceId));
  const giversMarks = new Map(
    [...new Set(given.map(({ ownerId }) => ownerId))].map((giver) => [
      giver,
      marksFor(
        db,
        giver,
        given.filter(({ ownerId }) => ownerId === giver),
      ),
    ]),
  );
  return ({ annotationId, ownerId, sourceId, answer }: StoredCard): Annotation | undefined => {
    const mine = seen.get(annotationId ?? '');
    if (mine || !readable.has(sourceId ?? '')) return mine;
    const mark = giversMarks.get(ownerId)?.get(annotationId ?? '');
    const isTheAnswer = mark?.author.id === ownerId && answer === '';
    return mark && (isTheAnswer ? mark : { ...mark, note: '' });
  };
}

function marksFor(db: Writing['db'], viewer: PersonId, cards: readonly StoredCard[]): ReadonlyMap<string, Annotation> {
  const ids = [...new Set(cards.flatMap((card) => card.annotationId ?? []))];
  return new Map(
    annotationsFor(db, viewer, ids)
      .filter((mark) => !mark.deleted)
      .map((mark) => [mark.id, mark]),
  );
}

export const cardFor = (world: Writing, me: PersonId, id: CardId): ReviewCard => cardsFor(world, me, [id])[0]!;

/** Cards in a list, the newest first. */
export function listCards({ db }: Writing, me: PersonId, asked: CardsAsked): CardPage {
  const { cards, total } = cardsAsked(db, me, asked);
  return { cards: cards.map(rowOf), total };
}

export const rowOf = (card: StoredCard): CardRow => ({
  id: card.id,
  version: card.version,
  question: card.question,
  words: cardWords(card),
  annotationId: card.annotationId,
  sourceId: card.sourceId,
  title: card.title,
  state: card.memory.state,
  due: card.memory.due,
  seen: card.memory.seen,
  forgotten: card.memory.forgotten,
  resting: card.resting,
  difficulty: card.memory.difficulty,
  share: card.share,
  given: card.given,
  classes: card.classes,
  createdAt: card.createdAt,
});

/** A mark somebody sees, in its place. Throws `not_found` for one they do not. */
export function passageOf({ db }: Writing, me: PersonId, id: AnnotationId): CardPassage {
  const annotation = markFor(db, me, id);
  return passageReader(db)(annotation, { question: '', slips: [], covers: false, quote: quoteOf(annotation) });
}

function markFor(db: Writing['db'], me: PersonId, id: AnnotationId): Annotation {
  const found = annotationFor(db, me, id);
  if (!found || found.deleted || found.rootId !== null || !found.anchor)
    throw new AppError('not_found', { what: 'annotation' });
  return found;
}

const quoteOf = (annotation: Annotation): string => annotation.anchor?.quote.exact ?? '';

type Asking = Pick<CardWords, 'question' | 'answer' | 'slips' | 'covers'>;

/** A new card under the id its author's page made; the same again changes nothing. */
export function putCard(world: Writing, me: Me, id: CardId, put: CardPut): ReviewCard {
  const { db, events } = world;
  return db.transaction(() => {
    const owner = ownerOfCard(db, id);
    const there = owner === me.id ? storedCard(db, me.id, id) : undefined;
    if (owner !== undefined && there?.deletedAt !== null) throw new AppError('id_taken', { id });
    if (!there) {
      makeCard(world, me, id, put);
      events.append({ type: 'review', personId: me.id });
    }
    return cardFor(world, me.id, id);
  });
}

/** Part of the caller's transaction, who tells of it. Throws `invalid` where nothing is asked, or it has no answer. */
export function makeCard({ db, now }: Writing, me: Me, id: CardId, { annotationId, ...put }: CardPut): void {
  const mark = annotationId === null ? undefined : markFor(db, me.id, annotationId);
  const quote = mark ? quoteOf(mark) : '';
  mustAsk(put, mark?.note ?? '', quote);
  insertCard(db, { ...put, quote, id, me: me.id, annotationId, sourceId: mark?.sourceId ?? null }, now());
  setMemory(db, me.id, id, newMemory(now()));
}

/** Changes a card. Throws `stale`, with what stands there now, where it is another version by now. */
export function patchCard(world: Writing, me: Me, id: CardId, patch: CardPatch): ReviewCard {
  const { db } = world;
  return db.transaction(() => {
    const before = storedCard(db, me.id, id)!;
    if (patch.version !== before.version)
      throw new AppError(
        'stale',
        { yours: patch.version, current: before.version },
        { current: cardFor(world, me.id, id) },
      );
    changeCard(world, me, before, patch);
    tellOfCard(world, before);
    return cardFor(world, me.id, id);
  });
}

/** Part of the caller's transaction, who tells of it. Throws `invalid` as `makeCard` does. */
export function changeCard({ db, now }: Writing, me: Me, before: StoredCard, patch: Omit<CardPatch, 'version'>): void {
  const mark = before.annotationId === null ? undefined : annotationFor(db, me.id, before.annotationId);
  const put = changed(before, patch);
  const quote = mark?.anchor ? quoteOf(mark) : before.quote;
  if (!patch.deleted) mustAsk(put, mark?.note ?? '', quote);
  updateCard(db, before.id, { ...put, quote, deletedAt: patch.deleted ? now() : before.deletedAt });
}

const changed = (before: StoredCard, patch: Omit<CardPatch, 'version'>): Asking => ({
  question: patch.question ?? before.question,
  answer: patch.answer ?? before.answer,
  slips: patch.slips ?? before.slips,
  covers: patch.covers ?? before.covers,
});

/** Tells everybody who has a card that it changed. Part of the caller's transaction. */
export function tellOfCard({ events }: Writing, { ownerId, classes }: Pick<StoredCard, 'ownerId' | 'classes'>): void {
  events.append({ type: 'review', personId: ownerId });
  for (const { id } of classes) events.append({ type: 'review', classId: id });
}

export function restoreCard(world: Writing, me: Me, id: CardId): ReviewCard {
  const { db } = world;
  return db.transaction(() => {
    const card = storedCard(db, me.id, id)!;
    updateCard(db, id, { ...card, deletedAt: null });
    tellOfCard(world, card);
    return cardFor(world, me.id, id);
  });
}

export function restCard(world: Writing, me: Me, id: CardId, resting: boolean): ReviewCard {
  const { db, events } = world;
  return db.transaction(() => {
    setResting(db, me.id, id, resting);
    events.append({ type: 'review', personId: me.id });
    return cardFor(world, me.id, id);
  });
}

/** A card has to ask something, and to have an answer. Throws `invalid` where it does not. */
function mustAsk({ question, answer, slips, covers }: Asking, note: string, quote: string): void {
  if (slips.length > 0 || covers) return;
  const isMarked = quote !== '';
  const isAnswered = answer !== '' || note !== '';
  if (question === '' && !(isMarked && isAnswered))
    throw new AppError('invalid', { message: 'Write a question, or put words under a slip.' }, { field: 'question' });
  if (question !== '' && !isMarked && !isAnswered)
    throw new AppError('invalid', { message: 'Write the answer.' }, { field: 'answer' });
}
