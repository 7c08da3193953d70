import type { Db } from '../db/database';

const HAS_ASSET = 'SELECT 1 AS one FROM version_asset WHERE version_id = ? AND hash = ?';
export const hasAsset = (db: Db, versionId: string, hash: string): boolean => db.get(HAS_ASSET, versionId, hash) !== undefined;
