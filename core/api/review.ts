import { boolean, mixed, number, object, string } from 'yup';
import type { Spot } from '../anchor/spot';
import { MEMORY_STATES } from '../review/rating';
import {
  PASSAGE_STATES,
  cardAnswerSchema,
  cardPatchSchema,
  cardPutSchema,
  cardTableSchema,
  idSchema,
  restSchema,
  reviewWishSchema,
  type CardPage,
  type CardPassage,
  type CardTableResult,
  type Review,
  type ReviewCard,
  type ReviewStatistics,
  type ReviewWish,
} from '../wire';
import { endpoint } from './endpoint';
import { hereSchema } from './find';
import { amount, fields, flag, id, list, shape, text, time } from './shape';
import { kind } from './shapes/marks';

const noneOrId = () => string().nullable().defined();
const memoryState = () => string().oneOf(MEMORY_STATES).required();

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
  createdAt: time(),
});
const card = shape<ReviewCard>()(cardFields);
const may = { thing: 'card', as: 'owner' } as const;

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

/** My cards, the newest first; of one source or one mark. */
export const listCards = endpoint('GET', '/api/cards', {
  query: object({
    source: idSchema(),
    annotation: idSchema(),
    resting: boolean(),
    offset: number().integer().min(0).max(1_000_000).default(0),
    limit: number().integer().min(1).max(500).default(100),
  }).noUnknown(),
  answer: shape<CardPage>()(fields({ cards: list(rowFields), total: amount() })),
});
export const getCard = endpoint('GET', '/api/cards/:id', { may, answer: card });
/** Makes a card under the id its author's page made; the same again changes nothing. */
export const putCard = endpoint('PUT', '/api/cards/:id', { body: cardPutSchema, answer: card });
export const patchCard = endpoint('PATCH', '/api/cards/:id', { may, body: cardPatchSchema, answer: card });
export const restoreCard = endpoint('POST', '/api/cards/:id/restore', {
  may: { thing: 'deleted card', as: 'owner' },
  answer: card,
});
/** A card that rests does not come back until it is woken. */
export const restCard = endpoint('PUT', '/api/cards/:id/rest', { may, body: restSchema, answer: card });
/** An answer under the id its author's page made; the same again changes nothing. */
export const putCardAnswer = endpoint('PUT', '/api/cards/:id/answers/:answerId', {
  may,
  body: cardAnswerSchema,
  answer: card,
});
/** Takes the last answer back: the card is as it was before. */
export const deleteCardAnswer = endpoint('DELETE', '/api/cards/:id/answers/:answerId', { may, answer: card });
/** A mark I see, in its place, of which a card is to be made. */
export const getPassage = endpoint('GET', '/api/annotations/:id/passage', {
  answer: shape<CardPassage>()(passageFields),
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
