import type { SourceId } from '@avrelle/core/wire';
import { onOtherPicture, type Crop } from '@avrelle/core/anchor';
import type { Context } from '../context';
import { hashOf, readBlob, storeBlob } from '../db/blobs';
import { forGood, removeUnused } from '../db/unused';
import { AppError } from '../errors';
import { leadOf } from '../snapshots/queries';
import { anchorsOf, assetsOf, putInPlaceOf, setAnchor, versionsWithFiles } from './queries';

/**
 * Puts a picture in the place of the one with the content `from`, of which the part `crop` is left. What was marked on
 * it stays where it was. The former picture, in every version, is gone for good unless somebody else keeps it too.
 * Throws `picture_changed` where the source holds another picture by now.
 */
export function replacePicture(
  { db, now, newId, events }: Pick<Context, 'db' | 'now' | 'newId' | 'events'>,
  sourceId: SourceId,
  { from, bytes, crop }: { readonly from: string; readonly bytes: Uint8Array; readonly crop: Crop },
): void {
  if (leadOf(db, sourceId) !== from) throw new AppError('picture_changed');
  if (hashOf(bytes) === from) return;
  forGood(db, () => {
    const versions = versionsWithFiles(db, sourceId);
    const before = versions.at(-1)!;
    const picture = storeBlob(db, bytes, 'image/png');
    const left = [
      ...assetsOf(db, sourceId),
      ...versions.flatMap((v) => [v.snapshotHash, ...(v.fileHash === null ? [] : [v.fileHash])]),
    ];
    const html = readBlob(db, before.snapshotHash)!.bytes.toString('utf8').replaceAll(from, picture);
    putInPlaceOf(db, sourceId, before, {
      id: newId(),
      at: now(),
      picture,
      snapshot: storeBlob(db, Buffer.from(html, 'utf8'), 'text/html'),
      fingerprint: `sha256:${picture}`,
    });
    for (const { id, anchor } of anchorsOf(db, sourceId)) {
      const spot = anchor.spot && onOtherPicture(anchor.spot, from, picture, crop);
      if (spot && spot !== anchor.spot) setAnchor(db, id, { ...anchor, spot });
    }
    removeUnused(db, left);
    events.append({ type: 'source', sourceId });
  });
}
