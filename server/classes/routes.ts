import { randomBytes } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import {
  classPutSchema,
  joinSchema,
  READINGS_AT_ONCE,
  readingsSchema,
  type ClassDetail,
  type ClassLabel,
  type ClassRow,
  type SourceRow,
} from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import { Tries } from '../accounts/tries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parse, parseQuery } from '../parse';
import { readId } from '../read-id';
import { sourceRowsOf } from '../sources/queries';
import {
  classByCode,
  classesOf,
  classFor,
  classLabel,
  insertClass,
  joinClass,
  readingsOf,
  roleIn,
  updateClass,
} from './queries';
import { addSourceTo, mustTeach, takeSourceFrom } from './readings';
import { joinCode } from './join-code';
import { classLifeRoutes, memberRoutes } from './member-routes';

export function classRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;
  const tries = new Tries();

  app.get('/api/classes', (request): ClassRow[] => classesOf(db, personOf(request).id));

  app.get('/api/classes/:id', (request): ClassDetail => {
    const person = personOf(request);
    const id = readId(request);
    const found = classFor(db, person.id, id);
    if (!found) throw new AppError('not_found', { what: 'class' });
    return { ...found, readings: sourceRowsOf(db, person.id, readingsOf(db, id, 0, READINGS_AT_ONCE)) };
  });

  app.put('/api/classes/:id', (request): ClassLabel => {
    const person = personOf(request);
    const id = readId(request);
    const put = parse(classPutSchema, request.body);
    return db.transaction(() => {
      if (insertClass(db, id, put, joinCode(randomBytes), person.id, context.now()))
        joinClass(db, id, person.id, 'teacher', context.now());
      else {
        mustTeach(roleIn(db, id, person.id), 'change it');
        const before = classFor(db, person.id, id)!;
        const repeated = put.version === undefined && before.name === put.name && before.tint === put.tint;
        if (!repeated && !updateClass(db, id, put))
          throw new AppError('stale', { yours: put.version ?? 'none', current: before.version }, { current: before });
      }
      events.append({ type: 'classes', classId: id });
      return classLabel(db, id)!;
    });
  });

  app.post('/api/classes/join', async (request): Promise<ClassLabel> => {
    const person = personOf(request);
    const { code } = parse(joinSchema, request.body);
    const found = await tries.guard(person.id, request.ip, ['wrong_code'], () => {
      const label = classByCode(db, code);
      if (!label) throw new AppError('wrong_code', { code }, { field: 'code' });
      return label;
    });
    db.transaction(() => {
      if (joinClass(db, found.id, person.id, 'student', context.now()))
        events.append({ type: 'classes', classId: found.id });
    });
    return found;
  });

  readingRoutes(app, context);
  memberRoutes(app, context);
  classLifeRoutes(app, context);
}

/** What a class reads. */
function readingRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;

  /** Further readings, from a place on. */
  app.get('/api/classes/:id/readings', (request): SourceRow[] => {
    const person = personOf(request);
    const id = readId(request);
    const { offset } = parseQuery(readingsSchema, request.query);
    if (!classFor(db, person.id, id)) throw new AppError('not_found', { what: 'class' });
    return sourceRowsOf(db, person.id, readingsOf(db, id, offset, READINGS_AT_ONCE));
  });

  app.put('/api/classes/:id/sources/:sourceId', (request, reply) => {
    const person = personOf(request);
    const id = readId(request);
    const sourceId = readId(request, 'sourceId');
    db.transaction(() => addSourceTo(context, person, id, sourceId));
    return reply.code(204).send();
  });

  app.delete('/api/classes/:id/sources/:sourceId', (request, reply) => {
    const person = personOf(request);
    const id = readId(request);
    const sourceId = readId(request, 'sourceId');
    db.transaction(() => takeSourceFrom(context, person, id, sourceId));
    return reply.code(204).send();
  });
}
