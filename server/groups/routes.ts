import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import { clearGroups, groupsVersion, putGroup } from './queries';

/** The groups of a class. */
export function groupRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;

  serving(app, context)('PUT /api/classes/:id/groups', ({ params: { id }, body: { version, groups } }) =>
    db.transaction(() => {
      const current = groupsVersion(db, id);
      if (version !== current) throw new AppError('stale', { yours: version, current }, { current });
      clearGroups(db, id);
      groups.forEach((group, position) => {
        if (!putGroup(db, id, group, position)) throw new AppError('not_found', { what: 'group' });
      });
      // By their group goes what they see of what was written.
      events.append({ type: 'classes', classId: id });
      return { version: current + 1 };
    }),
  );
}
