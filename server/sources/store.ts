import type { Context } from '../context';
import type { Ingested } from '../ingest/ingest';
import { insertSource, insertVersion } from './insert-queries';
import { keptBefore, replaceTags, shelve } from './queries';

export interface ToStore {
  readonly id: string;
  readonly ownerId: string;
  readonly tags: readonly string[];
  readonly ingested: Ingested;
}

/** Stores a source with its first version, whole or not at all; a page the owner kept before is given back instead. */
export function storeSource({ db, now, newId, events }: Pick<Context, 'db' | 'now' | 'newId' | 'events'>, { id, ownerId, tags, ingested }: ToStore): { readonly sourceId: string; readonly already: boolean } {
  return db.transaction(() => {
    const before = ingested.canonical ? keptBefore(db, ownerId, ingested.canonical) : undefined;
    if (before) return { sourceId: before, already: true };
    const versionId = newId(), at = now();
    insertSource(db, { id, ownerId, versionId, at, ingested });
    insertVersion(db, { versionId, sourceId: id, number: 1, at, title: ingested.meta.title, ingested });
    replaceTags(db, ownerId, id, tags);
    shelve(db, ownerId, id, { state: 'to_read' }, at);
    events.append({ type: 'library', personId: ownerId, sourceId: id });
    return { sourceId: id, already: false };
  });
}
