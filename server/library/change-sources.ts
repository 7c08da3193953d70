import type { Me, SourceChange, SourceChangesMade, CollectionId, PersonId, SourceId } from '@avrelle/core/wire';
import { addSourceTo, takeSourceFrom } from '../classes/readings';
import type { Context } from '../context';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { mustBe, mustOwnSource } from '../access/access';
import { canRead, wasOwned } from '../access/access-queries';
import { addTags, setDeleted, shelve, stateOf, takeTags } from '../sources/queries';
import { tellOfCollection } from './collections';
import {
  addToCollection,
  collectionChanged,
  collectionFor,
  itemIn,
  moveInCollection,
  takeFromCollection,
} from './queries';
import { checkListLimit } from '../list-limit-queries';

/**
 * Changes many sources at once, all that are there or none. What one may not do ends all; what is not there any more is
 * named and passed over. Gives what takes back just what was changed, in the order in which that is to be done.
 */
export function changeSources(context: Context, me: Me, changes: readonly SourceChange[]): SourceChangesMade {
  const { db, events } = context;
  return db.transaction(() => {
    const undo: SourceChange[] = [];
    const missing: string[] = [];
    const collections = new Set<string>();
    for (const change of changes) {
      const there = canRead(db, me.id, change.id) || (change.deleted === false && wasOwned(db, me.id, change.id));
      if (!there) missing.push(change.id);
      else {
        const back = changeOne(context, me, change);
        if (Object.keys(back).length > 0) undo.unshift({ id: change.id, ...back } as SourceChange);
        for (const id of [change.putInto?.collectionId, change.takeFrom]) if (id) collections.add(id);
      }
    }
    if (missing.length === changes.length) throw new AppError('not_found', { what: 'source' });
    for (const id of collections) {
      collectionChanged(db, id);
      tellOfCollection(context, me.id, collectionFor(db, me.id, id)!);
    }
    events.append({ type: 'library', personId: me.id });
    return { undo, missing };
  });
}

/** Its inverse, empty where nothing was changed. */
function changeOne(context: Context, me: Me, change: SourceChange): Partial<SourceChange> {
  return {
    ...changeDeleted(context, me, change),
    ...changeState(context, me, change),
    ...changeTags(context, me, change),
    ...changeCollections(context, me, change),
    ...changeClasses(context, me, change),
  };
}

type ChangePart = (context: Context, me: Me, change: SourceChange) => Partial<SourceChange>;

const changeDeleted: ChangePart = ({ db, now }, me, { id, deleted }) => {
  if (deleted === undefined) return {};
  if (deleted) mustOwnSource(db, me.id, id);
  else if (!wasOwned(db, me.id, id)) return {};
  setDeleted(db, id, deleted ? now() : null);
  return { deleted: !deleted };
};

const changeState: ChangePart = ({ db, now }, me, { id, state, ifState }) => {
  const before = stateOf(db, me.id, id);
  if (!state || state === before || (ifState ?? before) !== before) return {};
  shelve(db, { personId: me.id, sourceId: id }, { state }, now());
  return { state: before, ifState: state };
};

const changeTags: ChangePart = ({ db, now }, me, { id, addTags: add = [], takeTags: away = [] }) => {
  const mine = { personId: me.id, sourceId: id };
  const added = addTags(db, mine, add, now());
  const taken = takeTags(db, mine, away);
  return { ...(added.length > 0 ? { takeTags: added } : {}), ...(taken.length > 0 ? { addTags: taken } : {}) };
};

const changeCollections: ChangePart = (context, me, { id, putInto, takeFrom }) => {
  const isNew = putInto !== undefined && put(context, me, id, putInto);
  const place = takeFrom && take(context, me, id, takeFrom);
  return { ...(isNew ? { takeFrom: putInto.collectionId } : {}), ...(place ? { putInto: place } : {}) };
};

const changeClasses: ChangePart = (context, me, { id, shareWith, unshareFrom }) => {
  const added = shareWith && addSourceTo(context, me, shareWith, id);
  const taken = unshareFrom && takeSourceFrom(context, me, unshareFrom, id);
  return { ...(added ? { unshareFrom: shareWith } : {}), ...(taken ? { shareWith: unshareFrom } : {}) };
};

/** False where it is in it already. */
function put(
  context: Context,
  me: Me,
  sourceId: SourceId,
  { collectionId, section, position }: NonNullable<SourceChange['putInto']>,
): boolean {
  const { db, now } = context;
  mustContribute(db, me.id, collectionId);
  const last = collectionFor(db, me.id, collectionId)!.sections.length - 1;
  const placed = { id: collectionId, source: sourceId, section: Math.min(section, last) };
  if (!addToCollection(db, me.id, placed, now())) return false;
  checkListLimit(db, 'sources', collectionId);
  if (position !== undefined) moveInCollection(db, placed, position);
  return true;
}

/** Where it stood; undefined where it was not in it. */
function take(context: Context, me: Me, sourceId: SourceId, collectionId: CollectionId): SourceChange['putInto'] {
  mustContribute(context.db, me.id, collectionId);
  const at = itemIn(context.db, collectionId, sourceId);
  if (!at) return undefined;
  takeFromCollection(context.db, collectionId, sourceId);
  return { collectionId, ...at };
}

const mustContribute = (db: Db, me: PersonId, collectionId: CollectionId): void =>
  mustBe(db, me, { thing: 'collection', as: 'contributor' }, collectionId);
