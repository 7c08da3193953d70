import type { ClassId, PersonId } from '@avrelle/core/wire';
import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import {
  bringClassBack,
  deletedClassesOf,
  memberIds,
  removeMembership,
  setClassDeleted,
  setRole,
  teachersOf,
} from './member-queries';
import { beginNext } from './next-class';
import { classLabel, setArchived } from './queries';
import { roleIn } from '../access/access-queries';

/** What its routes go by. */
function around({ db, events }: Context) {
  return {
    /** Throws `last_teacher` where the class would be without one. */
    mustKeepTeacher: (classId: ClassId, personId: PersonId): void => {
      if (roleIn(db, classId, personId) === 'teacher' && teachersOf(db, classId) === 1)
        throw new AppError('last_teacher', { className: classLabel(db, classId)!.name });
    },
    mustBeMember: (classId: ClassId, personId: PersonId): void => {
      if (!roleIn(db, classId, personId)) throw new AppError('not_found', { what: 'member' });
    },
    /** Also whoever is no member any more: what they see of sources and annotations goes by their classes. */
    tell: (classId: ClassId, personId: PersonId): void => {
      events.append({ type: 'classes', classId, personId });
      events.append({ type: 'library', personId });
    },
  };
}

/** Who is in a class, and as what. */
export function memberRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const serve = serving(app, context);
  const { mustBeMember, mustKeepTeacher, tell } = around(context);

  serve('DELETE /api/classes/:id/membership', ({ me, params: { id } }) =>
    db.transaction(() => {
      mustKeepTeacher(id, me.id);
      removeMembership(db, id, me.id);
      tell(id, me.id);
    }),
  );

  serve('PUT /api/classes/:id/members/:personId', ({ params: { id, personId }, body: { role } }) =>
    db.transaction(() => {
      mustBeMember(id, personId);
      if (role !== 'teacher') mustKeepTeacher(id, personId);
      setRole(db, id, personId, role);
      tell(id, personId);
    }),
  );

  serve('DELETE /api/classes/:id/members/:personId', ({ params: { id, personId } }) =>
    db.transaction(() => {
      mustBeMember(id, personId);
      mustKeepTeacher(id, personId);
      removeMembership(db, id, personId);
      tell(id, personId);
    }),
  );
}

/** The end of a class, its return, and the next one. */
export function classLifeRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, events } = context;
  const serve = serving(app, context);
  const { tell } = around(context);

  serve('DELETE /api/classes/:id', ({ params: { id } }) =>
    db.transaction(() => {
      const members = memberIds(db, id);
      setClassDeleted(db, id, now());
      for (const member of members) tell(id, member);
    }),
  );

  serve('POST /api/classes/:id/restore', ({ params: { id } }) =>
    db.transaction(() => {
      bringClassBack(db, id);
      for (const member of memberIds(db, id)) tell(id, member);
      return classLabel(db, id)!;
    }),
  );

  serve('PUT /api/classes/:id/archived', ({ params: { id }, body: { archived } }) =>
    db.transaction(() => {
      if (setArchived(db, id, archived ? now() : null)) events.append({ type: 'classes', classId: id });
    }),
  );

  serve('POST /api/classes/:id/next', ({ me, params: { id }, body }) => beginNext(context, me, id, body));

  serve('GET /api/deleted-classes', ({ me }) => deletedClassesOf(db, me.id));
}
