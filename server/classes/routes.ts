import { randomBytes } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { classPutSchema, joinSchema, type ClassDetail, type ClassLabel, type ClassRole, type ClassRow } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parse } from '../parse';
import { readId } from '../read-id';
import { canRead, ownerOf, sourceRowsOf } from '../sources/queries';
import { addClassSource, classByCode, classesOf, classFor, classLabel, insertClass, joinClass, readingsOf, removeClassSource, roleIn, sourceAddedBy, updateClass } from './queries';
import { joinCode } from './join-code';

const GUARD = { config: { rateLimit: { max: 12, timeWindow: '5 minutes' } } };

export function classRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;

  app.get('/api/classes', (request): ClassRow[] => classesOf(db, personOf(request).id));

  app.get('/api/classes/:id', (request): ClassDetail => {
    const person = personOf(request), id = readId(request);
    const found = classFor(db, person.id, id);
    if (!found) throw new AppError('not_found', { what: 'class' });
    return { ...found, readings: sourceRowsOf(db, person.id, readingsOf(db, id)) };
  });

  app.put('/api/classes/:id', (request): ClassLabel => {
    const person = personOf(request), id = readId(request), put = parse(classPutSchema, request.body);
    return db.transaction(() => {
      if (insertClass(db, id, put, joinCode(randomBytes), person.id, context.now())) joinClass(db, id, person.id, 'teacher', context.now());
      else {
        mustTeach(roleIn(db, id, person.id), 'change it');
        updateClass(db, id, put);
      }
      events.append({ type: 'classes', classId: id });
      return classLabel(db, id)!;
    });
  });

  app.post('/api/classes/join', GUARD, (request): ClassLabel => {
    const person = personOf(request), { code } = parse(joinSchema, request.body);
    const found = classByCode(db, code);
    if (!found) throw new AppError('wrong_code', { code }, { field: 'code' });
    db.transaction(() => {
      if (joinClass(db, found.id, person.id, 'student', context.now())) events.append({ type: 'classes', classId: found.id });
    });
    return found;
  });

  app.put('/api/classes/:id/sources/:sourceId', (request, reply) => {
    const person = personOf(request), id = readId(request), sourceId = readId(request, 'sourceId');
    const role = roleIn(db, id, person.id);
    if (!role) throw new AppError('not_in_class');
    if (!canRead(db, person.id, sourceId)) throw new AppError('not_found', { what: 'source' });
    if (ownerOf(db, sourceId)?.id !== person.id) mustTeach(role, 'share it, or keep a copy of your own');
    db.transaction(() => {
      if (addClassSource(db, id, sourceId, person.id, context.now())) events.append({ type: 'classes', classId: id, sourceId });
    });
    return reply.code(204).send();
  });

  app.delete('/api/classes/:id/sources/:sourceId', (request, reply) => {
    const person = personOf(request), id = readId(request), sourceId = readId(request, 'sourceId');
    const role = roleIn(db, id, person.id);
    if (!role) throw new AppError('not_in_class');
    if (sourceAddedBy(db, id, sourceId) !== person.id) mustTeach(role, 'take the source out');
    db.transaction(() => {
      if (removeClassSource(db, id, sourceId)) events.append({ type: 'classes', classId: id, sourceId });
    });
    return reply.code(204).send();
  });
}

function mustTeach(role: ClassRole | undefined, action: string): void {
  if (!role) throw new AppError('not_found', { what: 'class' });
  if (role === 'student') throw new AppError('teachers_only', { role, action });
}
