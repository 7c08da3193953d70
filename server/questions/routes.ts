import type { FastifyInstance } from 'fastify';
import type { AnnotationId, ClassId, PersonId } from '@avrelle/core/wire';
import type { Context } from '../context';
import { tellClass } from '../notifications/tell-class';
import { AppError } from '../errors';
import { sendCsv } from '../export/csv';
import { serving } from '../serve';
import { answersTable } from './answers-table';
import { putQuestion, putResponse, questionOf, withdrawQuestion } from './ask';
import { askedIn, questionRows, setAnswersShown, type QuestionRow } from './queries';
import { questionsFor, responsesIn } from './questions';

/** What a class is asked, and what it answered. */
export function questionRoutes(app: FastifyInstance, context: Context): void {
  const { db, events, now } = context;
  const serve = serving(app, context);

  serve('GET /api/sources/:id/questions', ({ me, params: { id } }) => questionsFor(db, me.id, { sourceId: id }, now()));
  serve('GET /api/classes/:id/questions', ({ me, params: { id } }) => questionsFor(db, me.id, { classId: id }, now()));

  serve('PUT /api/annotations/:id/question', ({ me, params: { id }, body }) => putQuestion(context, me, id, body));
  serve('DELETE /api/annotations/:id/question', ({ me, params: { id } }) => withdrawQuestion(context, me, id));
  serve('PUT /api/annotations/:id/response', ({ me, params: { id }, body }) => putResponse(context, me, id, body));

  /** Asked of the class, for who teaches there. */
  const askedOf = (me: PersonId, classId: ClassId, annotationId: AnnotationId): QuestionRow => {
    const [row] = questionRows(db, me, { annotationId });
    if (!row || !askedIn(db, me, [annotationId]).some((asked) => asked.classId === classId))
      throw new AppError('not_found', { what: 'question' });
    return row;
  };

  serve(
    'PUT /api/classes/:id/questions/:annotationId/shown',
    ({ me, params: { id: classId, annotationId }, body: { shown } }) =>
      db.transaction(() => {
        askedOf(me.id, classId, annotationId);
        if (setAnswersShown(db, { id: annotationId, classId }, shown ? now() : null)) {
          if (shown) tellClass(context, { classId, questionId: annotationId }, me.id);
          events.append({ type: 'questions', classId });
        }
        return questionOf(context, me, annotationId);
      }),
  );
  serve.file('GET /api/classes/:id/answers.csv', ({ me, params: { id }, reply }) =>
    sendCsv(reply, 'answers.csv', answersTable(db, me.id, id)),
  );
  serve('GET /api/classes/:id/questions/:annotationId/responses', ({ me, params: { id: classId, annotationId } }) =>
    responsesIn(db, [askedOf(me.id, classId, annotationId)], classId)(annotationId),
  );
}
