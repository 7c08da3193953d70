import { randomBytes } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { READINGS_AT_ONCE } from '@avrelle/core/wire';
import { mustBe } from '../access/access';
import type { Context } from '../context';
import { AppError } from '../errors';
import { joinCode } from '../joining/join-code';
import { serving } from '../serve';
import { sourceRowsOf } from '../sources/queries';
import { classesOf, classFor, classLabel, insertClass, joinClass, readingsOf, updateClass } from './queries';
import { addSourceTo, takeSourceFrom } from './readings';

import { classLifeRoutes, memberRoutes } from './member-routes';

export function classRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;
  const serve = serving(app, context);

  serve('GET /api/classes', ({ me }) => classesOf(db, me.id));

  serve('GET /api/classes/:id', ({ me, params: { id } }) => ({
    ...classFor(db, me.id, id)!,
    readings: sourceRowsOf(db, me.id, readingsOf(db, id, 0, READINGS_AT_ONCE)),
  }));

  serve('PUT /api/classes/:id', ({ me, params: { id }, body: put }) =>
    db.transaction(() => {
      if (insertClass(db, { id, code: joinCode(randomBytes), personId: me.id }, put, context.now()))
        joinClass(db, { classId: id, personId: me.id, role: 'teacher' }, context.now());
      else {
        mustBe(db, me.id, { thing: 'class', as: 'assistant' }, id);
        const before = classFor(db, me.id, id)!;
        const repeated = put.version === undefined && before.name === put.name && before.tint === put.tint;
        if (!repeated && !updateClass(db, id, put))
          throw new AppError('stale', { yours: put.version ?? 'none', current: before.version }, { current: before });
      }
      events.append({ type: 'classes', classId: id });
      return classLabel(db, id)!;
    }),
  );

  readingRoutes(app, context);
  memberRoutes(app, context);
  classLifeRoutes(app, context);
}

/** What a class reads. */
function readingRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const serve = serving(app, context);

  serve('GET /api/classes/:id/readings', ({ me, params, query: { offset } }) =>
    sourceRowsOf(db, me.id, readingsOf(db, params.id, offset, READINGS_AT_ONCE)),
  );

  serve('PUT /api/classes/:id/sources/:sourceId', ({ me, params: { id, sourceId } }) =>
    db.transaction(() => void addSourceTo(context, me, id, sourceId)),
  );
  serve('DELETE /api/classes/:id/sources/:sourceId', ({ me, params: { id, sourceId } }) =>
    db.transaction(() => void takeSourceFrom(context, me, id, sourceId)),
  );
}
