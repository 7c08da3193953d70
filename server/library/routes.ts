import type { FastifyInstance } from 'fastify';
import { READING_STATES, type ReadingState, type SavedSearch } from '@avrelle/core/wire';
import type { Context } from '../context';
import { AppError } from '../errors';
import type { Asker } from '../find/asker';
import { askerOf } from '../find/asker-of';
import { countSources, readQuery } from '../find/find';
import { serving } from '../serve';
import { changeSources } from './change-sources';
import { KEPT_DAYS } from './remove-expired';
import { collectionsOf, deletedOf, searchesOf, stateCounts } from './queries';
import { tagCounts } from './tag-queries';

/** The Library beside its list of sources: what there is of everything, and changes to many at once. */
export function libraryRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const serve = serving(app, context);
  const since = (): string => new Date(Date.parse(context.now()) - KEPT_DAYS * 86_400_000).toISOString();

  serve('GET /api/library', ({ me: { id: me }, query }) => {
    const asker = askerOf(context, me, query);
    const states = Object.fromEntries(READING_STATES.map((s) => [s, 0])) as Record<ReadingState, number>;
    for (const row of stateCounts(db, me)) states[row.state] = row.count;
    return {
      all: Object.values(states).reduce((a, b) => a + b, 0),
      states,
      tags: tagCounts(db, me),
      collections: collectionsOf(db, me),
      searches: searchesOf(db, me).map((search) => ({
        ...search,
        owned: search.owned === 1,
        count: countOf(context, search.query, asker),
      })),
      deleted: deletedOf(db, me, since()).length,
    };
  });

  serve('POST /api/sources/changes', ({ me, body }) => changeSources(context, me, body.changes));

  serve('GET /api/sources/deleted', ({ me }) => deletedOf(db, me.id, since()));
}

/** Null for a query that cannot be read any more. */
function countOf({ db }: Context, query: string, asker: Asker): SavedSearch['count'] {
  try {
    return countSources(db, readQuery(query), asker);
  } catch (error) {
    if (error instanceof AppError) return null;
    throw error;
  }
}
