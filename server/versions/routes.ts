import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import { versionText } from '../sources/queries';
import { versionsOf } from './queries';
import { versionIdOf } from './version-id';

export function versionRoutes(app: FastifyInstance, context: Context): void {
  const { db, ingester } = context;
  const serve = serving(app, context);

  serve('GET /api/sources/:id/versions', ({ params }) => versionsOf(db, params.id));

  serve('GET /api/sources/:id/changes', async ({ params: { id }, query }) => {
    const versions = versionsOf(db, id);
    const fromId = versionIdOf(db, id, query.from);
    const toId = versionIdOf(db, id, query.to);
    const to = versions.find((v) => v.id === toId) ?? versions[0]!;
    const from = versions.find((v) => v.id === fromId) ?? versions.find((v) => v.number < to.number);
    if (!from || from.id === to.id) throw new AppError('one_version');
    const before = versionText(db, from.id)!.stream;
    const after = versionText(db, to.id)!.stream;
    return { from, to, before, after, changes: await ingester.compare(before, after) };
  });
}
