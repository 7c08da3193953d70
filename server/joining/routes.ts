import type { FastifyInstance } from 'fastify';
import { annotationFor } from '../annotations/queries';
import { isMember } from '../access/access-queries';
import { Tries } from '../accounts/tries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import { askToJoin, come } from './join';
import { classRoutesOf } from './class-routes';
import {
  classByCode,
  classesToAsk,
  countUse,
  hasAsked,
  invitationTo,
  linkByToken,
  myRequests,
  withdraw,
  type LinkRow,
} from './queries';

/** How somebody comes into a class: by its code, by a link, or by asking. */
export function joiningRoutes(app: FastifyInstance, context: Context): void {
  const { db, now } = context;
  const tries = new Tries();
  const serve = serving(app, context);

  /** Throws `wrong_link` where there is none, `link_over` where it lets nobody in any more. */
  const usable = (token: string): LinkRow => {
    const found = linkByToken(db, token);
    if (!found) throw new AppError('wrong_link');
    const { name: className, expiresAt, left } = found;
    if (expiresAt !== null && expiresAt <= now()) throw new AppError('link_over', { className, why: 'has ended' });
    if (left !== null && left <= 0)
      throw new AppError('link_over', { className, why: 'was used by as many people as it was for' });
    return found;
  };

  serve('POST /api/classes/join', async ({ me, body: { code }, request }) => {
    const { joining, ...label } = await tries.guard(me.id, request.ip, ['wrong_code'], () => {
      const found = classByCode(db, code);
      if (!found) throw new AppError('wrong_code', { code }, { field: 'code' });
      return found;
    });
    const { joined } = db.transaction(() => come(context, { classId: label.id, personId: me.id }, joining));
    return { ...label, joined };
  });

  serve('GET /api/join-link', async ({ me, query: { link }, request }) => {
    const found = await tries.guard(me.id, request.ip, ['wrong_link'], () => {
      const known = linkByToken(db, link);
      return known && isMember(db, known.id, me.id) ? known : usable(link);
    });
    return invitationTo(db, joiningBy(found), {
      isMember: isMember(db, found.id, me.id),
      asked: hasAsked(db, found.id, me.id),
    });
  });

  serve('POST /api/join-link', async ({ me, body: { link }, request }) =>
    tries.guard(me.id, request.ip, ['wrong_link'], () =>
      db.transaction(() => {
        const known = linkByToken(db, link);
        const label = ({ id, name, tint }: LinkRow) => ({ id, name, tint });
        // Who came by it may come again: the last one a link was for reloads the page.
        if (known && isMember(db, known.id, me.id)) return { ...label(known), joined: true };
        if (known && hasAsked(db, known.id, me.id) && known.forWhom === null) return { ...label(known), joined: false };
        const found = joiningBy(usable(link));
        const { joined, isNew } = come(
          context,
          { classId: found.id, personId: me.id, role: found.role },
          found.joining,
        );
        if (isNew) countUse(db, found.linkId);
        return { ...label(found), joined };
      }),
    ),
  );

  requestRoutes(app, context);
  classRoutesOf(app, context);
}

/** What one asked. */
function requestRoutes(app: FastifyInstance, context: Context): void {
  const { db, events } = context;
  const serve = serving(app, context);

  serve('GET /api/join-requests', ({ me }) => myRequests(db, me.id));

  serve('DELETE /api/join-requests/:id', ({ me, params: { id } }) =>
    db.transaction(() => {
      const classId = withdraw(db, id, me.id);
      if (classId === undefined) throw new AppError('not_found', { what: 'request' });
      events.append({ type: 'classes', classId, personId: me.id });
      events.append({ type: 'desk', classId });
    }),
  );

  serve('POST /api/annotations/:id/ask-to-join', ({ me, params: { id } }) =>
    db.transaction(() => {
      if (!annotationFor(db, me.id, id)) throw new AppError('not_found', { what: 'annotation' });
      const classes = classesToAsk(db, me.id, id);
      return { asked: classes.filter((classId) => askToJoin(context, { classId, personId: me.id }, id)).length };
    }),
  );
}

/** Whom a list named is known already, and need not be let in. */
const joiningBy = (link: LinkRow): LinkRow => (link.forWhom === null ? link : { ...link, joining: 'at_once' });
