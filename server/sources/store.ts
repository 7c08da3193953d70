import type { PersonId, SourceId } from '@avrelle/core/wire';
import type { Writing } from '../writing';
import type { Ingested } from '../ingest/ingested';
import { insertSource, insertVersion, storeFiles } from './insert-queries';
import { keptBefore, replaceTags, shelve } from './queries';

export interface ToStore {
  readonly id: string;
  readonly ownerId: PersonId;
  readonly tags: readonly string[];
  readonly remark?: string | undefined;
  /** Kept although the same was kept before. */
  readonly apart?: boolean | undefined;
  readonly ingested: Ingested;
}

/** Stores a source with its first version, whole or not at all; what the owner kept before is given back instead. */
export function storeSource(
  { db, now, newId, events }: Writing,
  { id, ownerId, tags, remark = '', apart = false, ingested }: ToStore,
): { readonly sourceId: SourceId; readonly already: boolean } {
  return db.transaction(() => {
    const before = keptBefore(db, ownerId, ingested);
    if (before && !apart) return { sourceId: before, already: true };
    const versionId = newId();
    const at = now();
    const files = storeFiles(db, ingested);
    insertSource(db, { id, ownerId, versionId, at, remark, recognised: !before, ingested });
    insertVersion(db, { versionId, sourceId: id, number: 1, at, ingested }, files);
    const own = { personId: ownerId, sourceId: id };
    replaceTags(db, own, tags, at);
    shelve(db, own, { state: 'to_read' }, at);
    events.append({ type: 'library', personId: ownerId, sourceId: id });
    return { sourceId: id, already: false };
  });
}
