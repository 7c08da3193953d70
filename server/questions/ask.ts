import type { Given } from '@avrelle/core/class';
import type { AnnotationId, ClassId, Me, Question, QuestionPut, ResponsePut } from '@avrelle/core/wire';
import { mustBe } from '../access/access';
import { annotationFor, authorOf, forClasses, ownAnnotation } from '../annotations/queries';
import { mustNotBeArchived } from '../classes/archived';
import type { Context } from '../context';
import { AppError } from '../errors';
import { tellOfOwn } from '../notifications/told-queries';
import { storedQuestion, storeQuestion, storeResponse, teachersAsking, withdraw } from './queries';
import { questionsFor } from './questions';

type World = Pick<Context, 'db' | 'now' | 'newId' | 'events'>;

/** Throws `not_found` where it is no question, or not for them to see. */
export function questionOf({ db, now }: World, me: Me, annotationId: AnnotationId): Question {
  const [found] = questionsFor(db, me.id, { annotationId }, now());
  if (!found) throw new AppError('not_found', { what: 'question' });
  return found;
}

/** Without what its form has no room for. */
function fitting(put: QuestionPut): QuestionPut {
  const isNumber = put.form === 'number';
  const isChosen = put.form === 'one' || put.form === 'several';
  return {
    ...put,
    ...(isChosen ? {} : { choices: [], right: [] }),
    ...(isNumber ? {} : { number: null, tolerance: 0, unit: '' }),
  };
}

/** Makes a question of a note, or changes it; what has been answered keeps what could be answered as it was. */
export function putQuestion(world: World, me: Me, id: AnnotationId, asked: QuestionPut): Question {
  const { db } = world;
  const put = fitting(asked);
  return db.transaction(() => {
    const classes = mustAsk(world, me, id);
    const before = storedQuestion(db, id);
    if (before && before.withdrawn === 0 && put.version !== before.version)
      throw new AppError(
        'stale',
        { yours: put.version ?? 'none', current: before.version },
        { current: questionOf(world, me, id) },
      );
    const isSame = before?.form === put.form && before.choices === JSON.stringify(put.choices);
    if (before?.answered === 1 && !isSame) throw new AppError('answered_already', {}, { field: 'choices' });
    storeQuestion(db, id, put);
    tellClasses(world, classes);
    return questionOf(world, me, id);
  });
}

/** The classes that are asked. Throws where the note is not one's own, or for no class, or for one not taught. */
function mustAsk({ db }: World, me: Me, id: AnnotationId): readonly ClassId[] {
  const note = ownAnnotation(db, me.id, id);
  if (!note || note.deletedAt !== null || note.rootId !== null) throw notMine(db, me, id);
  const classes = forClasses(db, id);
  if (classes.length === 0 || classes.some(({ teachersOnly }) => teachersOnly)) throw new AppError('asks_nobody');
  for (const { classId } of classes.filter(({ fromClass }) => fromClass === null)) {
    mustBe(db, me.id, { thing: 'class', as: 'assistant', to: 'ask the class' }, classId);
    mustNotBeArchived(db, classId);
  }
  return classes.map(({ classId }) => classId);
}

function notMine(db: World['db'], me: Me, id: AnnotationId): AppError {
  const seen = annotationFor(db, me.id, id);
  return seen && seen.author.id !== me.id
    ? new AppError('not_yours', { what: 'annotation', owner: seen.author.name })
    : new AppError('not_found', { what: 'annotation' });
}

function tellClasses({ events }: World, classes: readonly ClassId[]): void {
  for (const classId of classes) events.append({ type: 'questions', classId });
}

export function withdrawQuestion(world: World, me: Me, id: AnnotationId): void {
  world.db.transaction(() => {
    const classes = mustAsk(world, me, id);
    if (withdraw(world.db, id)) tellClasses(world, classes);
  });
}

/** Answers, or changes the answer, as long as the answers are not shown. */
export function putResponse(world: World, me: Me, id: AnnotationId, put: ResponsePut): Question {
  const { db, now, newId, events } = world;
  return db.transaction(() => {
    const question = questionOf(world, me, id);
    if (!question.isForMe) throw new AppError('not_asked');
    const given = givenFor(question, put);
    // Sent again, by a page that did not hear of its first answer.
    if (question.response && isSame(question.response, given)) return question;
    if (!question.isOpen) {
      for (const { id: classId } of question.classes) mustNotBeArchived(db, classId);
      throw new AppError('answers_shown');
    }
    storeResponse(db, { id, me: me.id, now: now() }, given);
    const asker = authorOf(db, id)!;
    tellOfOwn(db, { id: newId(), person: asker, annotation: id, now: now() });
    for (const personId of new Set([me.id, ...teachersAsking(db, id)])) events.append({ type: 'questions', personId });
    return questionOf(world, me, id);
  });
}

const isSame = (a: Given, b: Given): boolean =>
  a.words === b.words && a.number === b.number && JSON.stringify(a.choices) === JSON.stringify(b.choices);

/** What of an answer its question has room for. Throws `no_answer` where there is nothing, or what is not offered. */
function givenFor({ form, choices }: Question, put: ResponsePut): Given {
  const chosen = put.choices.toSorted((a, b) => a - b);
  const nothing: Given = { choices: [], number: null, words: '' };
  switch (form) {
    case 'open':
      if (put.words === '') throw new AppError('no_answer', { what: 'Write your answer.' }, { field: 'words' });
      return { ...nothing, words: put.words };
    case 'number':
      if (put.number === null) throw new AppError('no_answer', { what: 'Write a number.' }, { field: 'number' });
      return { ...nothing, number: put.number };
    default: {
      const isThere = chosen.length > 0 && chosen.every((at) => at < choices.length);
      if (!isThere || (form === 'one' && chosen.length > 1))
        throw new AppError(
          'no_answer',
          { what: form === 'one' ? 'Choose one of the answers.' : 'Choose at least one of the answers.' },
          { field: 'choices' },
        );
      return { ...nothing, choices: chosen };
    }
  }
}
