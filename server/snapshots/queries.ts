import type { SourceId, VersionId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

const HAS_ASSET = 'SELECT 1 AS one FROM version_asset WHERE version_id = ? AND hash = ?';
const FILE = 'SELECT b.hash, b.media_type FROM source_version v JOIN blob b ON b.hash = v.file_hash WHERE v.id = ?';
const LEAD = 'SELECT lead_hash FROM source WHERE id = ?';

export const hasAsset = (db: Db, versionId: VersionId, hash: string): boolean =>
  db.get(HAS_ASSET, versionId, hash) !== undefined;
export const fileOf = (db: Db, versionId: VersionId) => db.get<{ hash: string; mediaType: string }>(FILE, versionId);
export const leadOf = (db: Db, sourceId: SourceId): string | undefined =>
  db.get<{ leadHash: string | null }>(LEAD, sourceId)?.leadHash ?? undefined;
