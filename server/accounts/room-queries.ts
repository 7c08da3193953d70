import type { Db } from '../db/database';

/** Everything that is kept for a person, each file once: of their sources in all versions, deleted ones too, and of their notes. */
const USED = `
  SELECT coalesce(sum(b.size), 0) AS bytes FROM blob b WHERE b.hash IN (
    SELECT v.snapshot_hash FROM source s JOIN source_version v ON v.source_id = s.id WHERE s.owner_id = @person
    UNION SELECT v.file_hash FROM source s JOIN source_version v ON v.source_id = s.id WHERE s.owner_id = @person
    UNION SELECT a.hash FROM source s JOIN source_version v ON v.source_id = s.id JOIN version_asset a ON a.version_id = v.id WHERE s.owner_id = @person
    UNION SELECT j.upload_hash FROM job j WHERE j.person_id = @person
    UNION SELECT p.hash FROM picture p WHERE p.person_id = @person)`;

/** In bytes. */
export const usedBy = (db: Db, person: string): number => db.get<{ bytes: number }>(USED, { person })!.bytes;
