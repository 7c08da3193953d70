import type { FastifyInstance, FastifyRequest } from 'fastify';
import {
  ANNOTATION_GROUPINGS,
  ANNOTATION_SORTS,
  SOURCE_SORTS,
  type AnnotationPage,
  type SourcePage,
} from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import type { Asker } from './asker';
import { annotationPage, readQuery, sourcePage } from './find';
import { myClasses, type Page } from './queries';

const LONGEST_QUERY = 1_000;
const MOST = 200;

export function findRoutes(app: FastifyInstance, context: Context): void {
  const { db } = context;
  app.get('/api/sources', (request): SourcePage => {
    const asked = queryOf(request);
    return sourcePage(
      db,
      readQuery(asked.q),
      askerOf(context, request),
      pageOf(asked, SOURCE_SORTS, asked.q ? 'best' : 'touched'),
      asked.passages === 'yes',
    );
  });
  app.get('/api/annotations', (request): AnnotationPage => {
    const asked = queryOf(request);
    const page = pageOf(asked, ANNOTATION_SORTS, asked.q ? 'best' : 'newest');
    const by = ANNOTATION_GROUPINGS.find((g) => g === asked.by);
    return annotationPage(db, readQuery(asked.q), askerOf(context, request), { ...page, by });
  });
}

type Asked = Readonly<Record<string, string | undefined>> & { readonly q: string };

export function queryOf(request: FastifyRequest): Asked {
  const asked = request.query as Record<string, string | undefined>;
  const q = asked.q ?? '';
  if (q.length > LONGEST_QUERY)
    throw new AppError(
      'invalid',
      {
        message: `A search may have ${LONGEST_QUERY.toLocaleString('en')} characters, this one has ${q.length.toLocaleString('en')}. Look for fewer words.`,
      },
      { field: 'q' },
    );
  return { ...asked, q };
}

/** `day` is the day it is where they are, `ahead` how many minutes their clocks are ahead of UTC. */
export function askerOf({ db, now }: Pick<Context, 'db' | 'now'>, request: FastifyRequest): Asker {
  const me = personOf(request).id;
  const { day, ahead } = request.query as Record<string, unknown>;
  const minutes = Math.round(Number(ahead));
  return {
    me,
    classes: myClasses(db, me),
    today:
      typeof day === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(day) && !Number.isNaN(Date.parse(day))
        ? day
        : now().slice(0, 10),
    ahead: Math.abs(minutes) <= 14 * 60 ? minutes : 0,
  };
}

function pageOf<Sort extends string>(asked: Asked, sorts: readonly Sort[], otherwise: Sort): Page<Sort> {
  const whole = (name: string, most: number, or: number): number => {
    const n = Number(asked[name] ?? or);
    if (!Number.isInteger(n) || n < 0)
      throw new AppError(
        'invalid',
        { message: `“${name}” counts from 0, as a whole number: “${asked[name]}” is none.` },
        { field: name },
      );
    return Math.min(n, most);
  };
  return {
    sort: sorts.find((s) => s === asked.sort) ?? otherwise,
    offset: whole('offset', 1e9, 0),
    limit: Math.max(1, whole('limit', MOST, 60)),
  };
}
