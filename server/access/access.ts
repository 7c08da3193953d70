import type { PersonId } from '@avrelle/core/wire';
import { STANDINGS, type Permission, type Thing } from '@avrelle/core/api';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { standingOf } from './access-queries';

/** How each thing is called to somebody who may not reach it. */
const NAMES: Readonly<Record<Thing, string>> = {
  source: 'source',
  'deleted source': 'source',
  version: 'version',
  collection: 'collection',
  'saved search': 'search',
  class: 'class',
  'deleted class': 'class',
  kinds: 'Key',
  job: 'job',
  draft: 'page to look at',
  feed: 'feed',
  list: 'list',
  'study note': 'note',
  'deleted study note': 'note',
  card: 'card',
  'deleted card': 'card',
};

/** Whether somebody is to a thing what a permission asks for. */
export function can(db: Db, me: PersonId, { thing, as }: Permission, id: string): boolean {
  const found = standingOf(db, thing, me, id);
  return found !== undefined && rank(thing, found.standing) >= rank(thing, as);
}

/**
 * Lets through who is to a thing what a permission asks for. Throws `not_found` for whom it is nothing, also where it is
 * there for others; `teachers_only` or `not_yours` for who sees it and is not enough to it.
 */
export function mustBe(db: Db, me: PersonId, permission: Permission, id: string): void {
  const { thing, as, to = 'change it' } = permission;
  const found = standingOf(db, thing, me, id);
  if (!found) throw new AppError('not_found', { what: NAMES[thing] });
  if (rank(thing, found.standing) >= rank(thing, as)) return;
  if (thing === 'class') throw new AppError('teachers_only', { role: found.standing, action: to });
  if (thing === 'kinds') throw new AppError('teachers_only', { role: 'student', action: to });
  throw new AppError('not_yours', { what: NAMES[thing], owner: found.owner });
}

export const mustOwnSource = (db: Db, me: PersonId, id: string): void =>
  mustBe(db, me, { thing: 'source', as: 'owner' }, id);
export const mustReadSource = (db: Db, me: PersonId, id: string): void =>
  mustBe(db, me, { thing: 'source', as: 'reader' }, id);

const rank = (thing: Thing, standing: string): number => (STANDINGS[thing] as readonly string[]).indexOf(standing);
