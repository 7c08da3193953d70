import type { Db } from '../db/database';

const BARE = `SELECT a.id FROM annotation a WHERE a.deleted_at < ? AND NOT EXISTS (SELECT 1 FROM annotation r WHERE r.root_id = a.id OR r.parent_id = a.id)`;
const REMOVE = 'DELETE FROM annotation WHERE id = ?';
/** What was answered stays as a place, without its words. */
const ANSWERED =
  "SELECT a.id, a.anchor FROM annotation a WHERE a.deleted_at < ? AND (a.note <> '' OR a.quote <> '' OR json_extract(a.anchor, '$.spot.type') = 'drawn')";
const EMPTY = "UPDATE annotation SET note = '', quote = '', anchor = ? WHERE id = ?";
const CLEAR = ['annotation_tag', 'annotation_link', 'placement'].map(
  (table) => `DELETE FROM ${table} WHERE annotation_id = ?`,
);

/**
 * Removes annotations that were deleted before a time. Of those that have answers the place is left, where the answers
 * stand. Returns how many were removed or emptied. Call within a transaction.
 */
export function removeAnnotations(db: Db, before: string): number {
  let count = 0;
  // A reply may be all that holds what it answers.
  for (let ids = db.all<{ id: string }>(BARE, before); ids.length > 0; ids = db.all<{ id: string }>(BARE, before)) {
    for (const { id } of ids) count += db.run(REMOVE, id);
  }
  for (const { id, anchor } of db.all<{ id: string; anchor: string | null }>(ANSWERED, before)) {
    for (const sql of CLEAR) db.run(sql, id);
    db.run(
      EMPTY,
      anchor && JSON.stringify(placeOnly(JSON.parse(anchor) as { position: { start: number; end: number } })),
      id,
    );
    count++;
  }
  return count;
}

const placeOnly = ({ position }: { readonly position: { readonly start: number; readonly end: number } }) => ({
  quote: { exact: '', prefix: '', suffix: '' },
  position,
});
