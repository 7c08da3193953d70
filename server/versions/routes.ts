import type { FastifyInstance } from 'fastify';
import type { Comparison, VersionRow } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { readId } from '../read-id';
import { canRead, versionText } from '../sources/queries';
import { versionsOf } from './queries';
import { versionIdIn } from './version-in';

export function versionRoutes(app: FastifyInstance, context: Context): void {
  const { db, ingester } = context;
  const readable = (personId: string, sourceId: string): void => {
    if (!canRead(db, personId, sourceId)) throw new AppError('not_found', { what: 'source' });
  };

  /** Newest first. */
  app.get('/api/sources/:id/versions', (request): VersionRow[] => {
    const id = readId(request);
    readable(personOf(request).id, id);
    return versionsOf(db, id);
  });

  /** `?from=NUMBER&to=NUMBER`: what changed; without them, from the last version but one to the newest. */
  app.get('/api/sources/:id/changes', async (request): Promise<Comparison> => {
    const id = readId(request);
    readable(personOf(request).id, id);
    const versions = versionsOf(db, id);
    const fromId = versionIdIn(context, request, id, 'from');
    const toId = versionIdIn(context, request, id, 'to');
    const to = versions.find((v) => v.id === toId) ?? versions[0]!;
    const from = versions.find((v) => v.id === fromId) ?? versions.find((v) => v.number < to.number);
    if (!from || from.id === to.id) throw new AppError('one_version');
    const before = versionText(db, from.id)!.stream;
    const after = versionText(db, to.id)!.stream;
    return { from, to, before, after, changes: await ingester.compare(before, after) };
  });
}
