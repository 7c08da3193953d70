import { randomBytes } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import {
  changeRole,
  closeCode,
  deleteClass,
  leaveClass,
  listDeletedClasses,
  removeMember,
  renewCode,
  restoreClass,
} from '@avrelle/core/api';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serve } from '../serve';
import { joinCode } from './join-code';
import {
  bringClassBack,
  closeClassCode,
  deletedClassesOf,
  memberIds,
  removeMembership,
  setClassDeleted,
  setCode,
  setRole,
  teachersOf,
} from './member-queries';
import { classLabel, roleIn } from './queries';
import { mustTeach } from './readings';

/** What its routes go by. */
function around({ db, events }: Context) {
  return {
    /** Throws `teachers_only` for anybody else, assistants too. */
    mustBeTeacher: (classId: string, personId: string, action: string): void => {
      const role = roleIn(db, classId, personId);
      mustTeach(role, action);
      if (role !== 'teacher') throw new AppError('teachers_only', { role: role!, action });
    },
    /** Throws `last_teacher` where the class would be without one. */
    mustKeepTeacher: (classId: string, personId: string): void => {
      if (roleIn(db, classId, personId) === 'teacher' && teachersOf(db, classId) === 1)
        throw new AppError('last_teacher', { className: classLabel(db, classId)!.name });
    },
    mustBeMember: (classId: string, personId: string, what: string): void => {
      if (!roleIn(db, classId, personId)) throw new AppError('not_found', { what });
    },
    /** Also whoever is no member any more: what they see of sources and annotations goes by their classes. */
    tell: (classId: string, personId: string): void => {
      events.append({ type: 'classes', classId, personId });
      events.append({ type: 'library', personId });
    },
  };
}

/** Who is in a class, and as what. */
export function memberRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const { mustBeTeacher, mustBeMember, mustKeepTeacher, tell } = around(context);

  serve(app, leaveClass, ({ me, params: { id } }) =>
    db.transaction(() => {
      mustBeMember(id, me.id, 'class');
      mustKeepTeacher(id, me.id);
      removeMembership(db, id, me.id);
      tell(id, me.id);
    }),
  );

  serve(app, changeRole, ({ me, params: { id, personId }, body: { role } }) =>
    db.transaction(() => {
      mustBeTeacher(id, me.id, 'change who teaches');
      mustBeMember(id, personId, 'member');
      if (role !== 'teacher') mustKeepTeacher(id, personId);
      setRole(db, id, personId, role);
      tell(id, personId);
    }),
  );

  serve(app, removeMember, ({ me, params: { id, personId } }) =>
    db.transaction(() => {
      mustBeTeacher(id, me.id, 'remove somebody');
      mustBeMember(id, personId, 'member');
      mustKeepTeacher(id, personId);
      removeMembership(db, id, personId);
      tell(id, personId);
    }),
  );
}

/** By which code others join a class, its end, and its return. */
export function classLifeRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, events } = context;
  const { mustBeTeacher, tell } = around(context);

  serve(app, renewCode, ({ me, params: { id } }) =>
    db.transaction(() => {
      mustTeach(roleIn(db, id, me.id), 'make a new code');
      const code = joinCode(randomBytes);
      setCode(db, id, code);
      events.append({ type: 'classes', classId: id });
      return { code };
    }),
  );

  serve(app, closeCode, ({ me, params: { id } }) =>
    db.transaction(() => {
      mustTeach(roleIn(db, id, me.id), 'close the class');
      closeClassCode(db, id);
      events.append({ type: 'classes', classId: id });
    }),
  );

  serve(app, deleteClass, ({ me, params: { id } }) =>
    db.transaction(() => {
      mustBeTeacher(id, me.id, 'delete it');
      const members = memberIds(db, id);
      setClassDeleted(db, id, now());
      for (const member of members) tell(id, member);
    }),
  );

  serve(app, restoreClass, ({ me, params: { id } }) =>
    db.transaction(() => {
      if (!deletedClassesOf(db, me.id).some((deleted) => deleted.id === id))
        throw new AppError('not_found', { what: 'class' });
      bringClassBack(db, id);
      for (const member of memberIds(db, id)) tell(id, member);
      return classLabel(db, id)!;
    }),
  );

  serve(app, listDeletedClasses, ({ me }) => deletedClassesOf(db, me.id));
}
