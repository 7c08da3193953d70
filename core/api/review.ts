import { boolean, mixed, number, object, string } from 'yup';
import type { Spot } from '../anchor/spot';
import { MEMORY_STATES, RATINGS } from '../review/rating';
import {
  PASSAGE_STATES,
  cardAnswerSchema,
  cardPatchSchema,
  cardPutSchema,
  cardTableSchema,
  giveCardsSchema,
  idSchema,
  restSchema,
  reviewWishSchema,
  type CardPage,
  type CardPassage,
  type CardTableResult,
  type ClassCards,
  type NamedAnswers,
  type Review,
  type ReviewCard,
  type ReviewStatistics,
  type ReviewWish,
} from '../wire';
import { endpoint } from './endpoint';
import { hereSchema } from './find';
import { asAssistant } from './permission';
import { amount, fields, flag, id, list, shape, text, time } from './shape';
import { kind } from './shapes/marks';

const noneOrId = () => string().nullable().defined();
const memoryState = () => string().oneOf(MEMORY_STATES).required();

const given = object({ by: text(), className: text(), named: flag() }).noUnknown().nullable().defined();

const passageFields = fields({
  state: string().oneOf(PASSAGE_STATES).required(),
  place: text(),
  share: amount(),
  start: amount(),
  blocks: list(
    fields({
      start: amount(),
      isHeading: flag(),
      holds: flag(),
      parts: list(fields({ text: text(), marked: flag(), slip: number().nullable().defined() })),
    }),
  ),
  lost: amount(),
  versionId: noneOrId(),
  kind: kind.nullable().defined(),
  spot: mixed<Spot>().nullable().defined(),
  note: text(),
});
const cardFields = fields({
  id: id(),
  version: amount(),
  question: text(),
  answer: text(),
  slips: list(fields({ at: amount(), words: text() })),
  covers: flag(),
  annotationId: noneOrId(),
  source: object({ id: noneOrId(), title: text(), language: text() }).noUnknown().nullable().defined(),
  passage: passageFields,
  given,
  createdAt: time(),
  state: memoryState(),
  due: time(),
  seen: amount(),
  forgotten: amount(),
  resting: flag(),
  chance: number().nullable().defined(),
  comesBack: list(time()),
});
const rowFields = fields({
  id: id(),
  version: amount(),
  question: text(),
  words: text(),
  annotationId: noneOrId(),
  sourceId: noneOrId(),
  title: text(),
  state: memoryState(),
  due: time(),
  seen: amount(),
  forgotten: amount(),
  resting: flag(),
  difficulty: amount(),
  share: amount(),
  given,
  classes: list(fields({ id: id(), name: text() })),
  createdAt: time(),
});
const card = shape<ReviewCard>()(cardFields);
const may = { thing: 'card', as: 'owner' } as const;
/** A card of mine, or that a class of mine was given. */
const mayPractise = { thing: 'card', as: 'learner' } as const;

/** Of what: one source, a tag, a study note, or what a class reads. */
const ofSchema = hereSchema.shape({
  source: idSchema(),
  tag: string().max(100),
  note: idSchema(),
  class: idSchema(),
});

/** What there is to practise today. */
export const getReview = endpoint('GET', '/api/review', {
  query: ofSchema,
  answer: shape<Review>()(
    fields({
      cards: list(cardFields),
      due: amount(),
      held: amount(),
      next: string().nullable().defined(),
      sources: list(fields({ id: noneOrId(), title: text(), count: amount() })),
      days: list(amount()),
      answeredToday: amount(),
      total: amount(),
      resting: amount(),
    }),
  ),
});
export const getReviewStatistics = endpoint('GET', '/api/review/statistics', {
  query: hereSchema,
  answer: shape<ReviewStatistics>()(
    fields({
      weeks: list(
        fields({ from: text(), answers: amount(), learnt: amount(), remembered: amount(), expected: amount() }),
      ),
      days: list(amount()),
      hardest: list(rowFields),
      total: amount(),
      learnt: amount(),
      resting: amount(),
    }),
  ),
});
const wish = shape<ReviewWish>()(fields({ retention: amount(), newPerDay: amount(), answersPerDay: amount() }));
export const getReviewWish = endpoint('GET', '/api/review/wish', { answer: wish });
export const putReviewWish = endpoint('PUT', '/api/review/wish', { body: reviewWishSchema, answer: wish });

/** The cards I have, the newest first; of one source or one mark. */
export const listCards = endpoint('GET', '/api/cards', {
  query: object({
    source: idSchema(),
    annotation: idSchema(),
    resting: boolean(),
    /** Only those that were forgotten so often, or more. */
    forgotten: number().integer().min(1).max(1_000_000),
    offset: number().integer().min(0).max(1_000_000).default(0),
    limit: number().integer().min(1).max(500).default(100),
  }).noUnknown(),
  answer: shape<CardPage>()(fields({ cards: list(rowFields), total: amount() })),
});
export const getCard = endpoint('GET', '/api/cards/:id', { may: mayPractise, answer: card });
/** Makes a card under the id its author's page made; the same again changes nothing. */
export const putCard = endpoint('PUT', '/api/cards/:id', { body: cardPutSchema, answer: card });
export const patchCard = endpoint('PATCH', '/api/cards/:id', { may, body: cardPatchSchema, answer: card });
export const restoreCard = endpoint('POST', '/api/cards/:id/restore', {
  may: { thing: 'deleted card', as: 'owner' },
  answer: card,
});
/** A card that rests does not come back until it is woken. */
export const restCard = endpoint('PUT', '/api/cards/:id/rest', { may: mayPractise, body: restSchema, answer: card });
/** An answer under the id its author's page made; the same again changes nothing. */
export const putCardAnswer = endpoint('PUT', '/api/cards/:id/answers/:answerId', {
  may: mayPractise,
  body: cardAnswerSchema,
  answer: card,
});
/** Takes the last answer back: the card is as it was before. */
export const deleteCardAnswer = endpoint('DELETE', '/api/cards/:id/answers/:answerId', {
  may: mayPractise,
  answer: card,
});
/** A mark I see, in its place, of which a card is to be made. */
export const getPassage = endpoint('GET', '/api/annotations/:id/passage', {
  answer: shape<CardPassage>()(passageFields),
});

const asked = { id: id(), words: text(), question: text(), sourceId: noneOrId(), title: text() };
const how = { people: amount(), answers: amount(), forgot: amount(), knewAtOnce: amount(), learnt: amount() };
const classCards = shape<ClassCards>()(
  fields({
    cards: list(
      fields({
        ...asked,
        annotationId: noneOrId(),
        share: amount(),
        by: text(),
        mine: flag(),
        givenAt: time(),
        namedFrom: string().nullable().defined(),
        how: object({ ...how, remembered: amount() })
          .noUnknown()
          .nullable()
          .defined(),
      }),
    ),
    students: amount(),
    mine: list(fields(asked)),
  }),
);
const mayGive = asAssistant('give cards');
/** The cards of a class, with how each goes for its students together. */
export const listClassCards = endpoint('GET', '/api/classes/:id/cards', { may: mayGive, answer: classCards });
/** Gives cards of mine to a class, or says anew of some whether it is seen who answers how. */
export const giveClassCards = endpoint('PUT', '/api/classes/:id/cards', {
  may: mayGive,
  body: giveCardsSchema,
  answer: classCards,
});
export const takeClassCard = endpoint('DELETE', '/api/classes/:id/cards/:cardId', { may: mayGive });
/** Who answered how, since it is seen. */
export const listNamedAnswers = endpoint('GET', '/api/classes/:id/cards/:cardId/answers', {
  may: mayGive,
  answer: list(
    shape<NamedAnswers>()(
      fields({
        id: id(),
        name: text(),
        answers: amount(),
        forgot: amount(),
        last: string().oneOf(RATINGS).required(),
        at: time(),
      }),
    ),
  ),
});

export const exportCards = endpoint('GET', '/api/cards.csv', { gives: ['text/csv'] });
/** Those with an id of a card of mine change it; others are new, without a passage. */
export const importCards = endpoint('POST', '/api/cards/import', {
  body: cardTableSchema,
  answer: shape<CardTableResult>()(
    fields({ added: amount(), changed: amount(), refused: list(fields({ line: amount(), why: text() })) }),
  ),
  limit: 25_000_000,
});
