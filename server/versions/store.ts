import type { SourceId } from '@avrelle/core/wire';
import type { Writing } from '../writing';
import { AppError } from '../errors';
import type { Ingested } from '../ingest/ingested';
import { hashOf } from '../db/blobs';
import { insertVersion, storeFiles } from '../sources/insert-queries';
import { follow, type Follow, type Followed } from './follow';
import { marksIn, newestVersion, place, readsOf, setCurrent, setRead, type Newest } from './queries';

export type Prepared =
  | { readonly changed: false; readonly newest: Newest }
  | { readonly changed: true; readonly newest: Newest; readonly follow: Follow };

/** What is to be followed from the newest version to what was kept just now. Throws `not_found` when the source is gone. */
export function prepareVersion({ db }: Pick<Writing, 'db'>, sourceId: SourceId, ingested: Ingested): Prepared {
  const newest = newestVersion(db, sourceId);
  if (!newest) throw new AppError('not_found', { what: 'source' });
  const { kind, stored, snapshot } = ingested;
  // The title of a text file is its name, which may be another although the text is the same.
  const isTextAlone =
    /^(text|markdown|table)$/.test(kind) || (kind !== 'page' && kind !== 'letter' && ingested.file === null);
  const hash = (): string => (snapshot === '' && stored ? stored.snapshot : hashOf(Buffer.from(snapshot, 'utf8')));
  if (newest.stream === ingested.text && (isTextAlone || newest.snapshotHash === hash()))
    return { changed: false, newest };
  return {
    changed: true,
    newest,
    follow: {
      before: newest.stream,
      after: ingested.text,
      outline: ingested.outline,
      marks: marksIn(db, newest.id),
      reads: readsOf(db, sourceId),
    },
  };
}

/** Stores a new version beside the others with everything's place in it. Call within a transaction. */
export function storeVersion(
  { db, now, newId, events }: Writing,
  { sourceId, ingested }: { readonly sourceId: SourceId; readonly ingested: Ingested },
  { newest, follow: asked }: Extract<Prepared, { changed: true }>,
  followed: Followed,
): void {
  const versionId = newId();
  insertVersion(db, { versionId, sourceId, number: newest.number + 1, at: now(), ingested }, storeFiles(db, ingested));
  setCurrent(db, sourceId, versionId, { minutes: ingested.minutes, length: ingested.text.length });
  const known = new Set(followed.marks.map((m) => m.id));
  const late = marksIn(db, newest.id).filter((m) => !known.has(m.id));
  const rest = late.length ? follow({ ...asked, marks: late, reads: [] }).marks : [];
  for (const { id, located } of [...followed.marks, ...rest]) place(db, id, versionId, located);
  for (const read of followed.reads) setRead(db, sourceId, read);
  events.append({ type: 'source', sourceId });
}
