import type { FastifyInstance } from 'fastify';
import {
  READING_STATES,
  sourceChangesSchema,
  type DeletedSource,
  type LibraryOutline,
  type ReadingState,
  type SavedSearch,
  type SourceChangesMade,
} from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import type { Asker } from '../find/asker';
import { countSources, readQuery } from '../find/find';
import { askerOf } from '../find/routes';
import { parse } from '../parse';
import { changeSources } from './change-sources';
import { KEPT_DAYS } from './remove-expired';
import { collectionsOf, deletedOf, searchesOf, stateCounts } from './queries';
import { tagCounts } from './tag-queries';

/** The Library beside its list of sources: what there is of everything, and changes to many at once. */
export function libraryRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  const since = (): string => new Date(Date.parse(context.now()) - KEPT_DAYS * 86_400_000).toISOString();

  app.get('/api/library', (request): LibraryOutline => {
    const asker = askerOf(context, request);
    const { me } = asker;
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

  app.post('/api/sources/changes', (request): SourceChangesMade =>
    changeSources(context, personOf(request), parse(sourceChangesSchema, request.body).changes),
  );

  app.get('/api/sources/deleted', (request): DeletedSource[] => deletedOf(db, personOf(request).id, since()));
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
