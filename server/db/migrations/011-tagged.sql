-- Since when something bears a tag (RFC 3339); empty where that was not written down yet.
ALTER TABLE source_tag ADD COLUMN added_at TEXT NOT NULL DEFAULT '';
ALTER TABLE annotation_tag ADD COLUMN added_at TEXT NOT NULL DEFAULT '';

-- A collection that was deleted can be brought back for thirty days; what stands in it stands alone meanwhile.
ALTER TABLE collection ADD COLUMN deleted_at TEXT;
DROP VIEW collection_visible;
CREATE VIEW collection_visible(person_id, collection_id) AS
  SELECT owner_id, id FROM collection WHERE deleted_at IS NULL
  UNION
  SELECT m.person_id, c.id FROM collection c JOIN membership m ON m.class_id = c.class_id WHERE c.deleted_at IS NULL;
