import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { sendCsv } from '../export/csv';
import { serving } from '../serve';
import { cardFor, listCards, passageOf, patchCard, putCard, restCard, restoreCard } from './cards';
import { answersByName, classCardsFor, giveCards, takeCardBack } from './class-cards';
import { putAnswer, reviewFor, takeAnswerBack } from './practice';
import { setWish } from './queries';
import { statisticsFor } from './statistics';
import { bringInCards, cardTable } from './table';
import { wishFor } from './wish';

/** Cards, and practising them. */
export function reviewRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;
  const serve = serving(app, context);

  serve('GET /api/review', ({ me, query }) => reviewFor(context, me, query));
  serve('GET /api/review/statistics', ({ me, query }) => statisticsFor(context, me, query));
  serve('GET /api/review/wish', ({ me }) => wishFor(db, me.id));
  serve('PUT /api/review/wish', ({ me, body }) =>
    db.transaction(() => {
      setWish(db, me.id, body);
      events.append({ type: 'review', personId: me.id });
      return wishFor(db, me.id);
    }),
  );

  serve('GET /api/cards', ({ me, query }) => listCards(context, me.id, query));
  serve('GET /api/cards/:id', ({ me, params: { id } }) => cardFor(context, me.id, id));
  serve('PUT /api/cards/:id', ({ me, params: { id }, body }) => putCard(context, me, id, body));
  serve('PATCH /api/cards/:id', ({ me, params: { id }, body }) => patchCard(context, me, id, body));
  serve('POST /api/cards/:id/restore', ({ me, params: { id } }) => restoreCard(context, me, id));
  serve('PUT /api/cards/:id/rest', ({ me, params: { id }, body }) => restCard(context, me, id, body.resting));
  serve('PUT /api/cards/:id/answers/:answerId', ({ me, params: { id, answerId }, body }) =>
    putAnswer(context, me, id, { ...body, id: answerId }),
  );
  serve('DELETE /api/cards/:id/answers/:answerId', ({ me, params: { id, answerId } }) =>
    takeAnswerBack(context, me, id, answerId),
  );
  serve('GET /api/annotations/:id/passage', ({ me, params: { id } }) => passageOf(context, me.id, id));

  serve('GET /api/classes/:id/cards', ({ me, params: { id } }) => classCardsFor(context, me, id));
  serve('PUT /api/classes/:id/cards', ({ me, params: { id }, body }) => giveCards(context, me, id, body));
  serve('DELETE /api/classes/:id/cards/:cardId', ({ params: { id, cardId } }) => takeCardBack(context, id, cardId));
  serve('GET /api/classes/:id/cards/:cardId/answers', ({ me, params: { id, cardId } }) =>
    answersByName(context, me, id, cardId),
  );

  serve.file('GET /api/cards.csv', ({ me, reply }) => sendCsv(reply, 'cards.csv', cardTable(context, me)));
  serve('POST /api/cards/import', ({ me, body }) => bringInCards(context, me, body.table));
}
