import type { FastifyInstance } from 'fastify';
import type { Desk } from '@avrelle/core/wire';
import type { Context } from '../context';
import type { Asker } from '../find/asker';
import { askerOf } from '../find/asker-of';
import { askingNow } from '../notifications/asking';
import { noticesFor } from '../notifications/notices-queries';
import { kindsOff } from '../notifications/settings-queries';
import { cardsDue } from '../review/practice';
import { questionsLeft } from '../questions/queries';
import { serving } from '../serve';
import { annotationHits, readQuery, sourcePage } from '../find/find';
import { dayBefore } from './day-before';
import { markedOn, seeAll } from './queries';

const MOST = 5;
/** Minutes of a spare moment (common practice). */
const SPARE = 5;
const AGO = [
  ['a week', { days: 7 }],
  ['a month', { months: 1 }],
  ['half a year', { months: 6 }],
  ['a year', { months: 12 }],
  ['two years', { months: 24 }],
] as const;

export function deskRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, events } = context;
  const serve = serving(app, context);

  serve('GET /api/desk', ({ me, query }) => {
    const off = kindsOff(db, me.id, 'desk');
    const found = noticesFor(db, me.id, off);
    const asker = askerOf(context, me.id, query);
    const some = (query: string, limit = MOST) =>
      sourcePage(db, readQuery(query), asker, { sort: 'touched', offset: 0, limit });
    const fresh = some('is:to-read');
    const reading = some('is:reading').sources;
    const spare = sourcePage(
      db,
      readQuery(`minutes<=${SPARE} (is:to-read OR is:reading) progress<90 -type:picture -type:table`),
      asker,
      { sort: 'minutes', offset: 0, limit: 1 },
    ).sources[0];
    return {
      // Who has finished all of it is asked about apart.
      begun: fresh.total + reading.length > 0 || some('', 1).total > 0,
      notices: found,
      unseen: found.filter((n) => !n.seen).length,
      cards: cardsDue(context, me, query),
      asking: askingNow(db, me.id, off).map(({ class: of, people }) => ({ class: of, people })),
      questions: questionsLeft(db, me.id, now()),
      reading,
      fresh: fresh.sources,
      waiting: fresh.total,
      spare: spare ?? null,
      past: pastOf(asker),
    };
  });

  /** The longest ago of those days on which something was marked. */
  const pastOf = (asker: Asker): Desk['past'] => {
    for (const [ago, by] of AGO.toReversed()) {
      const seqs = markedOn(db, asker, dayBefore(asker.today, by));
      if (seqs.length) return { ago, annotations: annotationHits(db, asker.me, seqs) };
    }
    return null;
  };

  serve('POST /api/desk/seen', ({ me }) =>
    db.transaction(() => {
      if (seeAll(db, me.id, now()) > 0) events.append({ type: 'desk', personId: me.id });
    }),
  );
}
